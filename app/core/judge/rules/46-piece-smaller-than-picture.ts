/** Rule 46: what of the picture does not lie on the piece, or lies where it is to stay free. */
import { scaleArtwork } from "../../geometry/artwork";
import { blankOf, blankWords, overhang, resized } from "../../geometry/blank";
import { pageBox } from "../../geometry/origin";
import type { Job } from "../../records/job";
import { showLength } from "../../units/show";
import type { Facts } from "../../plan/facts";
import type { Finding, Rule } from "../snag";
import type { Picture } from "../../records/picture";
import { overrunOf, runOver, shortOf } from "../../geometry/picture";
import { placement } from "../../plan/placement";
import { burns, round } from "../ask";
import { jobFix } from "../fixes";

/** halvings in which a size is looked for */
const TURNS = 20;
/** The last size between `good` and `bad` at which the picture lies on the piece; `good` where that is the only one. */
function lastGood(good: number, bad: number, at: (k: number) => Pick<Job, "artwork" | "zones" | "substrate">): number {
  for (let i = 0; i < TURNS; i++) {
    const mid = (good + bad) / 2;
    if (overhang(at(mid)).mm <= 0) good = mid;
    else bad = mid;
  }
  return good;
}

/** A picture that covers its blank, and not by as much as the piece may lie off. */
function short(f: Facts, p: Picture): Finding[] {
  const { job } = f.context;
  const place = placement(
    f.context,
    f.placed.map((x) => x.step),
  );
  const lacks = shortOf(p, job, place.overrunMm);
  if (lacks === null) return [];
  const { least } = overrunOf(p, job);
  return [
    {
      step: f.placed.find(burns)?.step.id ?? null,
      zone: null,
      numbers: { overMm: round(least, 2), meantMm: round(place.overrunMm, 2), lacksMm: round(lacks, 2) },
      why:
        `The picture runs ${least >= 0 ? `only ${round(least, 2)} mm over` : `${round(-least, 2)} mm short of`} an edge of the piece; ` +
        `put back by ${place.by}, ${round(place.overrunMm, 2)} mm a side hide how it lies. A bare rim would be left.`,
      fixes: [
        jobFix("run-over", `Run it ${round(place.overrunMm, 2)} mm over`, (j) => ({
          picture: j.picture && runOver(j.picture, j, place.overrunMm),
        })),
      ],
    },
  ];
}

export const rule46: Rule = {
  id: 46,
  severity: "risk",
  title: "Picture fits the piece",
  find: (f) => {
    const { job } = f.context;
    const { artwork, substrate } = job;
    const { picture } = f.context;
    if (picture) return short(f, picture);
    if (!artwork) return [];
    // a picture that is meant to run off the edge does so by as much as the piece may lie off
    const { overrunMm } = placement(
      f.context,
      f.placed.map((x) => x.step),
    );
    const keep = substrate.keepMm ?? 0;
    const meant = keep ? 0 : overrunMm;
    const over = overhang(job);
    if (over.mm <= meant + 1e-6) return [];
    const [w, h] = pageBox(artwork);
    const plain = blankOf(substrate).plain && !keep;
    const smallest = { ...job, ...scaleArtwork(job, 0.02) };
    const k =
      plain && !artwork.dx && !artwork.dy
        ? Math.min(substrate.w / w, substrate.h / h)
        : overhang(smallest).mm <= 0
          ? lastGood(0.02, 1, (x) => ({ ...job, ...scaleArtwork(job, x) }))
          : null;
    const grown = (x: number) => ({ ...job, substrate: resized(substrate, substrate.w * x, substrate.h * x) });
    const size = plain
      ? [
          Math.max(w + 2 * Math.abs(artwork.dx ?? 0), substrate.w),
          Math.max(h + 2 * Math.abs(artwork.dy ?? 0), substrate.h),
        ]
      : overhang(grown(4)).mm <= 0
        ? [substrate.w, substrate.h].map((x) => x * lastGood(4, 1, grown))
        : null;
    const names = over.zones.map((id) => job.zones.find((z) => z.id === id)?.name ?? id);
    const words = blankWords(substrate, showLength);
    const far = `${round(over.mm, 1)} mm`;
    return [
      {
        step: f.placed.find(burns)?.step.id ?? null,
        zone: over.zones.length === 1 ? over.zones[0] : null,
        numbers: {
          pictureW: round(w, 1),
          pictureH: round(h, 1),
          overMm: round(over.mm, 2),
          meantMm: meant,
          pieceW: substrate.w,
          pieceH: substrate.h,
        },
        why: plain
          ? `The picture is ${round(w, 1)} × ${round(h, 1)} mm, the piece ${substrate.w} × ${substrate.h} ` +
            `mm: ${far} over the edge${meant > 0 ? `, where ${meant} mm are meant to hide how the piece lies` : ""}; ` +
            "what hangs over is lost or burns the bed."
          : `${names.length ? `“${names.join("”, “")}”` : "The picture"} ${names.length > 1 ? "lie" : "lies"} ${far} ` +
            (keep
              ? `too near to the edge of the piece (${[`${substrate.w} × ${substrate.h} mm`, words].filter(Boolean).join(", ")}), ` +
                `along which ${keep} mm are to stay free.`
              : `over the edge of the piece (${substrate.w} × ${substrate.h} mm, ${words}); what hangs over is lost or burns the bed.`),
        fixes: [
          ...(artwork.dx || artwork.dy
            ? [
                jobFix("middle", "Lay the picture in the middle", (j) => ({
                  artwork: j.artwork && { ...j.artwork, dx: undefined, dy: undefined },
                })),
              ]
            : []),
          ...(k === null
            ? []
            : [jobFix("shrink", `Scale the picture to ${round(k * 100)} %`, (j) => scaleArtwork(j, k))]),
          ...(size
            ? [
                jobFix("larger", `Take a piece of ${round(size[0], 1)} × ${round(size[1], 1)} mm`, (j) => ({
                  substrate: resized(j.substrate, round(size[0] + 0.05, 1), round(size[1] + 0.05, 1)),
                })),
              ]
            : []),
        ],
      },
    ];
  },
};
