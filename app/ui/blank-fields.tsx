/** The true outline of a flat blank: its form, holes, what stays free along its edge; drawn as it will be planned with. */
import { useState } from "react";
import { useFetcher } from "react-router";
import { blankOf, faceMm2 } from "../core/geometry/blank";
import type { Outcome } from "../core/records/outcome";
import type { Job } from "../core/records/job";
import { said } from "../core/units/said";
import { showLength } from "../core/units/show";
import { bodyOf } from "../core/catalogue/substrates";
import { DropFile } from "./kit/drop";
import { PickField, TextField } from "./kit/field";
import { Fold } from "./kit/fold";
import { Face } from "./face";

const OUTLINE = { "image/svg+xml": [".svg"], "image/vnd.dxf": [".dxf"] };
const LIMIT = 8_000_000;
const NO_ARTWORK = { artwork: null, zones: [] };

export function BlankFields({ job }: { job: Job }) {
  const s = job.substrate;
  const len = (mm: number): string => showLength(Math.round(mm * 100) / 100, job.units);
  const fetcher = useFetcher<Outcome>();
  const [refused, refuse] = useState("");
  const wrong = refused || (fetcher.data && "error" in fetcher.data ? fetcher.data.error : "");
  const { plain, edgeMm } = blankOf(s);
  const take = async (file: File): Promise<void> => {
    refuse("");
    await fetcher.submit({ intent: "blank-file", name: file.name, text: await file.text() }, { method: "post" });
  };
  const area = faceMm2(s);
  return (
    <Fold summary="Its outline: rounded, oval, of its own; holes" open={!plain || s.keepMm !== undefined}>
      <div className="flex flex-col gap-3 pt-2">
        <div className="grid fields-40 gap-3">
          <PickField
            name="substrate.blank"
            label="Outline"
            value={s.blank?.form ?? ""}
            options={[
              { value: "", label: "rectangle" },
              { value: "rounded", label: "rounded corners" },
              { value: "oval", label: s.w === s.h ? "round" : "oval" },
              ...(s.blank?.path ? [{ value: "path", label: "of its own" }] : []),
            ]}
          />
          {s.blank?.form === "rounded" && (
            <TextField name="substrate.cornerMm" label="Rounded by" value={len(s.blank.cornerMm ?? 0)} />
          )}
          <TextField
            name="substrate.keepMm"
            label="Margin kept free"
            value={s.keepMm === undefined ? "" : len(s.keepMm)}
          />
        </div>
        <TextField
          name="substrate.holes"
          label="Round holes"
          value={(s.holes ?? []).map((k) => `${len(k.d)} at ${len(k.x)}, ${len(k.y)}`).join("; ")}
          hint={said(
            "how wide, and where from the left and from the top: 4 mm at 10 mm, 12 mm; 4 mm at 90 mm, 12 mm",
            job.units,
          )}
        />
        <DropFile
          label="Outline file"
          what="an SVG or DXF file"
          kinds={OUTLINE}
          limit={LIMIT}
          busy={fetcher.state !== "idle"}
          onFile={(file) => void take(file)}
          onRefused={refuse}
        >
          {(choose) => (
            <>
              <p>An outline of its own: drop an SVG or DXF file here.</p>
              <button type="button" className="btn" onClick={choose}>
                Choose the file of the outline
              </button>
              <p className="tag">
                Its lines are the edge, whatever their colour: one around all others, holes within it. Size and holes
                are then the file’s, and can be typed.
              </p>
            </>
          )}
        </DropFile>
        {wrong && (
          <p role="alert" className="text-wrong">
            {wrong}
          </p>
        )}
        {!plain && (
          <div className="flex items-center gap-4">
            <Face
              job={{ ...NO_ARTWORK, substrate: s }}
              colours={{ ground: bodyOf(s).colour }}
              className="h-28 w-40 shrink-0"
              label="The blank’s outline"
            />
            <p className="tag">
              Face {said(`${area < 1000 ? area.toFixed(1) : Math.round(area)} mm²`, job.units)}, edge {len(edgeMm)}.
              Paint, sanding and the cut go by it.
            </p>
          </div>
        )}
      </div>
    </Fold>
  );
}
