/** Photos of a job, named by the stage they were taken at: `photo.<step>.<when>`. */
import { nowMinutes } from "../../clock";
import { Text } from "../../core/records/fields";
import type { Photo } from "../../core/records/log";
import { commit } from "../../store/acts";
import { act, HUGE, LONG } from "../act";
import type { OnJob } from "./job";

class PhotoForm {
  @Text(120) step: string = "";
  @Text(LONG) caption: string = "";
  /** base64 */
  @Text(HUGE) data!: string;
}
class PhotoIdForm {
  @Text(120) id!: string;
}
const CAPTION = 200;

const photoId = (step: string, at: number, n: number): string =>
  `photo.${(step || "any").slice(0, 70)}.${Math.round(at * 60000).toString(36)}.${n}`;
const withPhotos = (w: OnJob["world"], photos: string[]) => ({ ...w.job, wrapUp: { ...w.job.wrapUp, photos } });

export const photoActs = [
  act("photo", PhotoForm, async (f, { id, world: w }: OnJob) => {
    const at = nowMinutes();
    const { photos } = w.job.wrapUp;
    const photo: Photo = {
      version: 1,
      id: photoId(f.step, at, photos.length),
      jobId: id,
      at,
      caption: f.caption.slice(0, CAPTION),
      data: f.data,
    };
    await commit(`photo for “${w.job.title}”`, [
      { table: "photos", id: photo.id, next: photo, base: null },
      { table: "jobs", id, next: withPhotos(w, [...photos, photo.id]), base: w.job },
    ]);
    return "Photo kept";
  }),
  act("photo-forget", PhotoIdForm, (f, { id, world: w }: OnJob) =>
    commit(`photo of “${w.job.title}”`, [
      { table: "photos", id: f.id, next: null },
      {
        table: "jobs",
        id,
        next: withPhotos(
          w,
          w.job.wrapUp.photos.filter((x) => x !== f.id),
        ),
        base: w.job,
      },
    ]),
  ),
];
