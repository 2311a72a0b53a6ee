/** When lessons were first written down, by the kind of step that they are told at. */
import type { Lesson } from "../core/records/shop";

export function firstTold(lessons: readonly Lesson[]): Map<string, string> {
  const out = new Map<string, string>();
  for (const l of lessons) if (!out.has(l.kind) || l.at < out.get(l.kind)!) out.set(l.kind, l.at);
  return out;
}
