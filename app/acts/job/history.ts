/** What has changed elsewhere since a job began: taken over for the rest of it, or left. */
import { declined, takenOver } from "../../core/plan/begun";
import { nowMinutes } from "../../clock";
import { Refused } from "../../store/acts";
import { act, Bare } from "../act";
import { changed, type OnJob } from "./job";

export const historyActs = [
  act("take-over", Bare, async (_f, c: OnJob) => {
    const next = takenOver(c.world, nowMinutes());
    if (!next) throw new Refused("Nothing has changed elsewhere since this job began.");
    const { begun } = next.job;
    await changed(c, "changes of the shop taken over into", () => ({ begun }));
    return "Taken over for what is still to do";
  }),
  act("keep-begun", Bare, async (_f, c: OnJob) => {
    const begun = declined(c.world);
    if (!begun) throw new Refused("Nothing has changed elsewhere since this job began.");
    await changed(c, "changes of the shop left out of", () => ({ begun }));
    return "Goes on as it was begun";
  }),
];
