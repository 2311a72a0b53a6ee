/** What every job under way would have to tell: for who asked to be told, on any page. */
import { nowMinutes } from "../clock";
import { readRunning } from "../store/queries";
import { alarmsOf, type AlarmEvent } from "../ui/bench/alarms";
import { rackOf } from "../views/bench";

export const rackAlarms = async (): Promise<AlarmEvent[]> =>
  alarmsOf(rackOf(await readRunning(null), Math.floor(nowMinutes())));
