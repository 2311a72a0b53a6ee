/** What a picture is dug to: the colours of the stack, the power of each, and colours of the picture that none of them comes near. */
import { tonesOf } from "./levels-words";
import { useMade, type Work } from "./facts";
import type { PictureRun } from "../../workers/picture";

function Swatch({ colour }: { colour: string }) {
  return (
    <span
      aria-hidden="true"
      className="inline-block size-4 shrink-0 rounded-sm border border-line"
      style={{ background: colour }}
    />
  );
}

export function Levels({ work, run }: { work: Work; run: PictureRun }) {
  const { made, share } = useMade(run);
  const beyond = share === null ? made?.beyond : null;
  if (!work.dug) return null;
  return (
    <div className="flex flex-col gap-2">
      <ul aria-label="What it is dug to" className="divide-y divide-line border-y border-line">
        <li className="flex flex-wrap items-center gap-2 py-1">
          <Swatch colour={work.left} /> Dark top <span className="tag">left as it is: white in the file</span>
        </li>
        {work.dug.map((l) => (
          <li key={l.zone} data-level={l.zone} className="flex flex-wrap items-center gap-2 py-1">
            <Swatch colour={l.colour} /> {l.name}
            <span className="tag">{tonesOf(l)}</span>
          </li>
        ))}
      </ul>
      {beyond &&
        (beyond.length ? (
          <>
            <p>Colours of the picture that this stack does not come near:</p>
            <ul aria-label="Colours out of reach">
              {beyond.map((b) => (
                <li key={b.colour} data-beyond={b.colour} className="flex flex-wrap items-center gap-2 py-1">
                  <Swatch colour={b.colour} /> comes out as <Swatch colour={b.nearest} />
                  <span className="tag">
                    {(b.share * 100).toFixed(1)} % of it, a difference of {b.off.toFixed(0)}
                  </span>
                </li>
              ))}
            </ul>
          </>
        ) : (
          <p data-beyond="">The levels, mixed, come near every colour of the picture.</p>
        ))}
    </div>
  );
}
