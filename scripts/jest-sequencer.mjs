/** The longest files first, so that all lanes end together: a clean clone has no record of how long each took. */
import Sequencer from "@jest/test-sequencer";

const LONG = [
  "judge/rules",
  "plan/briefs",
  "scripts/adding",
  "bench/maker",
  "door/door",
  "io/away",
  "acts/acts",
  "store/store",
  "schedule/schedule",
  "io/fuzz",
  "plan/frozen",
  "explain/words",
  "plan/history",
  "judge/frozen",
  "process/force",
  "scripts/checks",
  "plan/proof",
  "why/why",
  "views/inches",
  "vector/many",
];
const rank = ({ path }) => {
  const i = LONG.findIndex((part) => path.includes(`${part}.test.`));
  return i < 0 ? LONG.length : i;
};
export default class LongestFirst extends (Sequencer.default ?? Sequencer) {
  sort(tests) {
    return [...tests].sort((a, b) => rank(a) - rank(b) || (a.path < b.path ? -1 : 1));
  }
}
