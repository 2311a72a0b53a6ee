/**
 * Where artwork lies on its piece, for screen, file and rule alike: in the middle of the blank or moved from there, mirrored where the
 * laser wants it. mm.
 */
import { faces } from "../models/round/round";
import type { Job } from "../records/job";
import { asOn } from "./names";
import { origin } from "./origin";
import { mirrored, moved } from "./outline";

type Laid = Pick<Job, "artwork" | "zones" | "substrate">;

/** mm left between two faces on round work */
export const FACE_GAP_MM = 2;

/**
 * Outlines of the zones as they lie on the blank. @param mirror left for right, as a file goes to the laser
 * @param piece from 1: of zones that are another one on each, such as names, the one of this piece
 */
export function onBlank(job: Laid, mirror = false, piece = 1): { id: string; path: string }[] {
  const [x, y] = origin(job);
  return asOn(job.zones, piece)
    .filter((z) => z.outline)
    .map((z) => {
      const path = moved(z.outline, x, y);
      return { id: z.id, path: mirror ? mirrored(path, job.substrate.w) : path };
    });
}

/** Equal faces round a ball or cylinder; null: it is flat, or its diameter is not known. */
export function facesRound(job: Pick<Job, "substrate" | "choices">): ReturnType<typeof faces> | null {
  const { shape, diameter } = job.substrate;
  const n = job.choices.faces;
  return shape && shape !== "flat" && diameter && n ? faces(diameter, n, FACE_GAP_MM) : null;
}
