/** Tests by how long they take: models and units at once, whole plans later, schedules and the store last. */
import Sequencer from "@jest/test-sequencer";

const LATE = [
  "/models/",
  "/units/",
  "/time/",
  "/records/",
  "/tables",
  "/vector/",
  "/process/",
  "/judge/",
  "/plan/",
  "/explain/",
  "/schedule/",
  "/store/",
];
const rank = (path) => LATE.findLastIndex((part) => path.includes(part));
export default class ByLength extends (Sequencer.default ?? Sequencer) {
  sort(tests) {
    return [...tests].sort((a, b) => rank(a.path) - rank(b.path) || (a.path < b.path ? -1 : 1));
  }
}
