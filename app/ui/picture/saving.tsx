/** The file for the laser, and what another file or the laser’s program says against it. */
import { useState } from "react";
import { beat, perInch } from "../../core/tone/density";
import { pictureFile } from "../../core/geometry/picture";
import { said } from "../../core/units/said";
import { densityOf } from "../../io/import/density";
import { pictureHead } from "../../io/import/pixels";
import type { PictureRun } from "../../workers/picture";
import { saveFile } from "../files";
import { DropFile } from "../kit/drop";
import { PICTURE_LIMIT, PICTURES } from "../taking";
import { useMade, type View, type Work } from "./facts";

/** The file, named so that it is found again. */
export function Save({ run, d, work, pass }: { run: PictureRun; d: View; work: Work; pass: number }) {
  const { made, share } = useMade(run);
  const which = d.works.length > 1 ? `_pass${pass + 1}` : "";
  const name = `${pictureFile(d.job, d.picture!, work.recipe.intervalMm)}${which}.png`;
  return (
    <div className="flex flex-col gap-1">
      <button
        type="button"
        className="btn btn-main self-start"
        disabled={!made || share !== null}
        onClick={() => void run.save().then((png) => png && saveFile(name, png, "image/png"))}
      >
        Save the PNG for the laser
      </button>
      <p className="tag">
        {name}. Black is burnt. In the laser’s program leave alone: turning over, mirroring, tone, dots; say{" "}
        {said(`${work.recipe.intervalMm} mm`, d.units)} between lines and the size as it is.
        {work.recipe.mirror && " It is mirrored already."}
        {work.recipe.render === "grey" &&
          " There power follows the grey: black is the power that is set, least power 0, white is left."}
      </p>
    </div>
  );
}

const tenth = (v: number): number => Math.round(v * 10) / 10;
/** Stripes that two densities make, in words. */
function stripes(theirs: number, work: Work): string {
  const ours = perInch(work.recipe.intervalMm);
  const every = beat(theirs, ours);
  return every === null
    ? `${tenth(theirs)} an inch is what the file has: every row is burnt as it was drawn.`
    : `${tenth(theirs)} against the file’s ${tenth(ours)} an inch: a line is left out or doubled every ${tenth(every)} lines, ` +
        `a stripe every ${tenth(every * work.recipe.intervalMm)} mm. ` +
        `Set ${work.recipe.intervalMm} mm between lines (${tenth(ours)} an inch) there.`;
}

/** Does what another program says agree? By number, or by a file that was changed and saved there. */
export function Elsewhere({ run, d, work }: { run: PictureRun; d: View; work: Work }) {
  const { made } = useMade(run);
  const [typed, type] = useState("");
  const [file, hear] = useState<{ name: string; says: string[] } | null>(null);
  const n = Number(typed.replace(",", "."));
  const look = async (f: File): Promise<void> => {
    try {
      const bytes = new Uint8Array(await f.arrayBuffer());
      const head = pictureHead(bytes);
      const density = densityOf(bytes);
      const says = [
        density === null
          ? "It says nothing of its density: the laser’s program will take one of its own, and the size with it."
          : stripes(density, work),
      ];
      if (made && (head.w !== made.w || head.h !== made.h))
        says.push(
          `It has ${head.w} × ${head.h} pixels, the file made here ${made.w} × ${made.h}: its dots were made anew there. ` +
            "Change it in one place only: tones and dots here, or all of it there.",
        );
      hear({ name: f.name, says });
    } catch (e) {
      hear({ name: f.name, says: [`It was not read. ${(e as Error).message}`] });
    }
  };
  return (
    <>
      <label className="flex max-w-64 flex-col gap-0.5 text-small text-muted">
        Lines an inch in the laser’s program
        <input className="field-in text-ink" inputMode="decimal" value={typed} onChange={(e) => type(e.target.value)} />
      </label>
      <p aria-live="polite" data-beat={typed}>
        {typed.trim() === ""
          ? ""
          : n > 0
            ? said(stripes(n, work), d.units)
            : `“${typed}” is no number of lines an inch.`}
      </p>
      <DropFile
        label="File changed elsewhere"
        what="a PNG or JPEG that another program saved"
        kinds={PICTURES}
        limit={PICTURE_LIMIT}
        busy={false}
        onFile={(f) => void look(f)}
        onRefused={(why) => hear({ name: "", says: [why] })}
      >
        {(choose) => (
          <button type="button" className="btn" onClick={choose}>
            Look at a file changed elsewhere
          </button>
        )}
      </DropFile>
      <div aria-live="polite">
        {file && (
          <>
            {file.name && <strong className="break-all">{file.name}</strong>}
            {file.says.map((x) => (
              <p key={x}>{said(x, d.units)}</p>
            ))}
          </>
        )}
      </div>
    </>
  );
}
