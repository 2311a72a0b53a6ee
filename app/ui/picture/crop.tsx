/** The part of a picture that is used. */
import { useSubmit } from "react-router";
import type { Picture } from "../../core/records/picture";
import { PART, PartFields } from "./part-fields";

export function CropForm({ picture }: { picture: Picture }) {
  const submit = useSubmit();
  const c = picture.crop ?? { x: 0, y: 0, w: 1, h: 1 };
  return (
    <form
      className="grid grid-cols-4 items-end gap-2"
      aria-label="Part of the picture"
      key={JSON.stringify(c)}
      onSubmit={(e) => {
        e.preventDefault();
        const v = new FormData(e.currentTarget);
        v.set("intent", "picture-crop");
        void submit(v, { method: "post" });
      }}
    >
      <PartFields start={PART.map((k) => Math.round(c[k] * 1000) / 10)} />
      <button className="btn col-span-4 justify-self-start">Take this part</button>
    </form>
  );
}
