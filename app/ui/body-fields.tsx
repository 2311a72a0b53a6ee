/** What this very sheet looks like, and what lies beneath its skin. */
import { bodyOf, substrateNamed } from "../core/catalogue/substrates";
import type { Job } from "../core/records/job";
import { TextField } from "./kit/field";

const SKINS = {
  glaze: { beneath: "Under the glaze", thick: "Glaze, µm thick" },
  coating: { beneath: "Under the coating", thick: "Coating, µm thick" },
  cap: { beneath: "Core, under the cap", thick: "Cap, µm thick" },
};

export function BodyFields({ job }: { job: Job }) {
  const body = bodyOf(job.substrate);
  const usual = substrateNamed(job.substrate.id);
  const { skin } = body;
  const words = skin && skin.kind !== "silver" ? SKINS[skin.kind] : null;
  const from = (own: boolean): string | undefined => (own ? undefined : "default");
  return (
    <div className="grid fields-30 gap-3">
      <TextField
        name="substrate.colour"
        label="Its colour"
        colour
        value={body.colour}
        from={from(body.colour !== usual.colour)}
      />
      {words && skin && (
        <>
          <TextField
            name="substrate.beneath"
            label={words.beneath}
            colour
            value={skin.beneath}
            from={from(skin.beneath !== usual.skin?.beneath)}
          />
          <TextField
            name="substrate.skinUm"
            label={words.thick}
            value={job.substrate.skinUm === undefined ? "" : String(job.substrate.skinUm)}
            from={job.substrate.skinUm === undefined ? `default: ${skin.um}` : undefined}
          />
        </>
      )}
    </div>
  );
}
