/** Hazard 85: open beam, mirror-bright work. */
import { safe } from "../../records/machine";
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";
import { BEAM_KINDS } from "../../catalogue/beams";

export const rule85: Rule = {
  id: 85,
  severity: "hazard",
  title: "Open beam, mirror-bright work",
  find: (f) => {
    const at =
      f.context.machine &&
      (!safe(f.context.machine, "enclosed") ||
        f.context.substrate.family === "metal" ||
        f.context.substrate.skin?.kind === "silver")
        ? firstIndex(f, (p) => does(p).beam !== undefined)
        : -1;
    const { machine: m, substrate } = f.context;
    const shut = m && safe(m, "enclosed");
    const open = shut === null ? `Nobody has said whether ${m?.name} is enclosed` : `${m?.name} is not enclosed`;
    const why = shut ? `${substrate.name} throws the beam back` : open;
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { watts: f.context.machine!.watts },
            why:
              `${why}: ` +
              `enclosure shut, a window rated for ${BEAM_KINDS[f.context.machine!.beam].name}, nobody else in the ` +
              `room without eyewear${["uv", "um1", "co2"].includes(f.context.machine!.beam) ? "; this beam cannot be seen" : ""}.`,
            fixes: [],
          },
        ];
  },
};
