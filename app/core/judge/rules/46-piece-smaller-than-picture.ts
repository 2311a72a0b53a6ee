/** Rule 46: the piece is smaller than the picture. */
import { scaleArtwork } from "../../geometry/artwork";
import type { Rule } from "../snag";
import { placement } from "../../plan/placement";
import { burns, round } from "../ask";
import { jobFix } from "../fixes";

export const rule46: Rule = {
  id: 46,
  severity: "risk",
  title: "Picture fits the piece",
  find: (f) => {
    const { artwork, substrate } = f.context.job;
    if (!artwork) return [];
    // a picture that is meant to run off the edge does so by as much as the piece may lie off
    const { overrunMm } = placement(
      f.context,
      f.placed.map((x) => x.step),
    );
    const over = Math.max(artwork.w - substrate.w, artwork.h - substrate.h) / 2;
    if (over <= overrunMm + 1e-6) return [];
    const k = Math.min(substrate.w / artwork.w, substrate.h / artwork.h);
    return [
      {
        step: f.placed.find(burns)?.step.id ?? null,
        zone: null,
        numbers: {
          pictureW: round(artwork.w, 1),
          pictureH: round(artwork.h, 1),
          overMm: round(over, 2),
          meantMm: overrunMm,
          pieceW: substrate.w,
          pieceH: substrate.h,
        },
        why:
          `The picture is ${round(artwork.w, 1)} × ${round(artwork.h, 1)} mm, the piece ${substrate.w} × ${substrate.h} ` +
          `mm: ${round(over, 1)} mm over the edge${overrunMm > 0 ? `, where ${overrunMm} mm are meant to hide how the piece lies` : ""}; ` +
          "what hangs over is lost or burns the bed.",
        fixes: [
          jobFix("shrink", `Scale the picture to ${round(k * 100)} %`, (j) => scaleArtwork(j, k)),
          jobFix(
            "larger",
            `Take a piece of ${round(Math.max(artwork.w, substrate.w), 1)} × ${round(Math.max(artwork.h, substrate.h), 1)} mm`,
            (j) => ({
              substrate: {
                ...j.substrate,
                w: round(Math.max(artwork.w, j.substrate.w) + 0.05, 1),
                h: round(Math.max(artwork.h, j.substrate.h) + 0.05, 1),
              },
            }),
          ),
        ],
      },
    ];
  },
};
