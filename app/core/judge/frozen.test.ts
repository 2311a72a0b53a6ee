/**
 * Answers of before, held: several hundred odd briefs, planned and judged. A line a rule for some of them together, so that a change
 * shows which one speaks otherwise, how often it speaks, and whether that was meant; what a rule ought to say is tested beside this,
 * rule by rule.
 */
import { createHash } from "node:crypto";
import { generate } from "../plan/generate";
import { makePlan } from "../plan/plan";
import { context } from "../process/context";
import { odd, tappedOdd } from "../testing/odd";
import { snagsOf } from "./judge";
import { RULES } from "./rules";

const N = 400;
const digest = (lines: string[]): string => createHash("sha256").update(lines.join("\n")).digest("hex").slice(0, 10);

const GROUP = 40;
/** how often each rule has spoken so far */
const spoke = new Map<number, number>(RULES.map((r) => [r.id, 0]));

test.each(Array.from({ length: N / GROUP }, (_, k) => k * GROUP))(
  "what every rule says, finds and offers over odd briefs is what it was, %i on",
  (from) => {
    const said = new Map<number, string[]>();
    for (let n = from; n < from + GROUP; n++) {
      let w = odd(n, (x) => generate(context(x)).steps);
      if (n % 4 === 3) {
        const times = makePlan(w, null, true).placed.map((p) => ({ id: p.step.id, start: p.start, end: p.end }));
        w = tappedOdd(w, n, times);
      }
      const p = makePlan(w, null, true);
      for (const s of snagsOf(p)) {
        const fixes = s.fixes.map((f) => {
          const after = f.apply(w);
          return [
            f.id,
            f.label,
            after.job === w.job ? "" : JSON.stringify([after.job.edits, after.job.choices, after.job.route]),
          ];
        });
        const line = JSON.stringify([n, s.severity, s.step, s.zone, s.why, s.numbers, fixes]);
        (said.get(s.rule) ?? said.set(s.rule, []).get(s.rule)!).push(line);
        spoke.set(s.rule, spoke.get(s.rule)! + 1);
      }
    }
    const rows = [...said].sort(([a], [b]) => a - b);
    expect(rows.map(([id, lines]) => `rule ${id}: ${lines.length} found, ${digest(lines)}`)).toMatchSnapshot();
  },
);

test("a rule that never speaks there is held by nothing: these are known", () =>
  expect([...spoke].filter(([, n]) => n === 0).map(([id]) => id)).toMatchSnapshot());
