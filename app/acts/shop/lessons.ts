/** Lessons: written down, changed, made a rule, taken out. */
import { Text } from "../../core/records/fields";
import { LessonForm } from "../../core/records/forms";
import { isKind } from "../../core/process/kinds";
import { ROUTE_IDS } from "../../core/records/ids";
import type { Lesson, Shop } from "../../core/records/shop";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { Refused } from "../../store/acts";
import { act, FieldForm } from "../act";
import { changedShop, type InShop } from "./shop";

class LessonId {
  @Text(120) id!: string;
}
class LessonField extends FieldForm {
  @Text(120) id!: string;
}

/** A lesson as it is typed in. @throws Refused where it speaks of a step that there is none of */
export function lessonOf(f: LessonForm, shop: Shop, at: number): Lesson {
  if (!isKind(f.kind)) throw new Refused(`There is no kind of step “${f.kind}”.`);
  const route = ROUTE_IDS.find((r) => r === f.route);
  return {
    id: `lesson.${Math.round(at * 60).toString(36)}.${(shop.lessons ?? []).length + 1}`,
    text: f.text.trim(),
    at: shopClock(shop).toLocal(Math.floor(at)).slice(0, 10),
    kind: f.kind,
    ...(f.jobId ? { jobId: f.jobId } : {}),
    ...(f.substrate ? { substrate: f.substrate } : {}),
    ...(route ? { route } : {}),
    ...(f.productId ? { productId: f.productId } : {}),
  };
}
const changedLesson = (id: string, more: (l: Lesson) => Lesson | null): Promise<void> =>
  changedShop("lesson", (s) => {
    if (!s.lessons?.some((l) => l.id === id)) throw new Refused("This lesson is no longer there; read the page anew.");
    const left = s.lessons.flatMap((l) => (l.id === id ? (more(l) ?? []) : [l]));
    return { lessons: left.length ? left : undefined };
  });

export const lessonActs = [
  act("lesson-add", LessonForm, (f, { shop }: InShop) => {
    const made = lessonOf(f, shop, nowMinutes());
    return changedShop("lesson", (s) => ({ lessons: [...(s.lessons ?? []), made] }));
  }),
  act("lesson", LessonField, (f, _c: InShop) =>
    changedLesson(f.id, (l) => {
      if (f.field === "rule") return { ...l, rule: f.value === "true" ? true : undefined };
      if (f.field !== "text") throw new Refused(`There is nothing called “${f.field}” here.`);
      if (!f.value.trim()) throw new Refused("A lesson says something.");
      return { ...l, text: f.value.trim() };
    }),
  ),
  act("lesson-remove", LessonId, (f, _c: InShop) => changedLesson(f.id, () => null)),
];
