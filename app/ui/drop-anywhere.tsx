/** A drawing or a picture dropped on any page, beside the places that take files themselves, begins a new job with it. */
import type { ReactNode } from "react";
import { useDropzone } from "react-dropzone";
import { BEGINNING, useBeginning } from "./beginning";
import { MeasuringWords } from "./measuring";
import { refusal } from "./kit/drop";
import { PICTURE_LIMIT } from "./taking";

export function DropAnywhere({ children }: { children: ReactNode }) {
  const { m, begin } = useBeginning();
  const drop = useDropzone({
    accept: BEGINNING,
    maxSize: PICTURE_LIMIT,
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDropAccepted: ([file]) => void begin(file),
    onDropRejected: (all) =>
      m.refuse(refusal(all, "an SVG drawing or a picture, which begins a new job,", PICTURE_LIMIT)),
  });
  return (
    <div {...drop.getRootProps({ role: undefined, tabIndex: undefined })} data-drop-anywhere>
      {children}
      <div
        className={
          "pointer-events-none fixed inset-x-0 bottom-0 z-40 mx-auto flex max-w-page flex-col items-center p-4 max-lg:bottom-13"
        }
      >
        {drop.isDragActive && (
          <p className="rounded-lg border-2 border-dashed border-act bg-lifted px-6 py-4 font-semibold shadow-lg">
            Let it go: a new job begins with it.
          </p>
        )}
        {(m.standing.share !== null || m.standing.error) && (
          <div className="pointer-events-auto flex items-center gap-4 rounded-lg border border-line bg-lifted px-5 py-3 shadow-lg">
            <MeasuringWords of={m} />
            {m.standing.error && (
              <button type="button" className="btn" onClick={() => m.refuse("")}>
                All right
              </button>
            )}
          </div>
        )}
      </div>
    </div>
  );
}
