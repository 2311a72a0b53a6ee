/** A drawing or a picture that a new job begins with, wherever it was let go. */
import { useSubmit } from "react-router";
import { tooLarge } from "./kit/drop";
import { DRAWING, DRAWING_LIMIT, type Measuring, useMeasuring } from "./measuring";
import { isPicture, PICTURES, takePicture } from "./taking";

export const BEGINNING = { ...DRAWING, ...PICTURES };

export function useBeginning(): { m: Measuring; begin: (file: File) => Promise<void> } {
  const submit = useSubmit();
  const to = { method: "post", action: "/jobs/new" } as const;
  const m = useMeasuring((name, svg, found) =>
    submit({ intent: "new-from-drawing", name, svg, found: JSON.stringify(found) }, to),
  );
  const begin = async (file: File): Promise<void> => {
    if (!isPicture(file) && file.size > DRAWING_LIMIT) return m.refuse(tooLarge(file, DRAWING_LIMIT));
    if (!isPicture(file)) return m.measure(file.name, await file.text(), null);
    m.refuse("");
    try {
      await submit({ ...(await takePicture(file)), intent: "new-from-picture" }, to);
    } catch (e) {
      m.refuse(`“${file.name}” was not taken in. ${(e as Error).message}`);
    }
  };
  return { m, begin };
}
