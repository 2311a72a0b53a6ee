/** The part of a picture that is used. */
import { useSubmit } from "react-router";
import type { Picture } from "../../core/records/picture";

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
      {(["x", "y", "w", "h"] as const).map((k) => (
        <label key={k} className="flex flex-col gap-0.5 text-small text-muted">
          {{ x: "From left, %", y: "From top, %", w: "Wide, %", h: "High, %" }[k]}
          <input
            name={k}
            className="field-in text-ink"
            inputMode="decimal"
            defaultValue={Math.round(c[k] * 1000) / 10}
          />
        </label>
      ))}
      <button className="btn col-span-4 justify-self-start">Take this part</button>
    </form>
  );
}
