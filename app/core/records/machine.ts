/** A laser in the Workshop. */
import { BEAMS } from "./ids";
import { Flag, Id, Maybe, Num, OneOf, OrNull, Since, SubList, Text, TextList, Whole } from "./fields";
import type { RecordKind } from "./version";

/** A point of the machine's own power curve: what the panel says against what was measured. */
export class PowerPoint {
  /** percent or mA as the panel shows it */
  @Num(0, 1000) set!: number;
  /** W measured */
  @Num(0, 10000, "W") watts!: number;
}

/** What one material gave way to one machine (M10). */
export class DepthIn {
  /** id of the material */
  @Id() substrate!: string;
  /** mm per J/mm² above the threshold */
  @Num(0.0001, 5) perJ!: number;
}

export class Machine {
  @Whole(1, 1) version: number = 1;
  @Id() id!: string;
  @Text(80) name!: string;
  @OneOf(BEAMS) beam!: (typeof BEAMS)[number];
  /** rated optical W */
  @Num(0.1, 5000, "W") watts!: number;
  /** top speed, mm/s; null: unknown, and percent speed is refused */
  @OrNull() @Num(1, 50000, "mm/s") maxSpeed: number | null = null;
  /** mm/s² */
  @Num(10, 500000, "mm/s²") accel: number = 3000;
  /** travel speed, mm/s */
  @OrNull() @Num(1, 50000, "mm/s") rapid: number | null = null;
  @Num(10, 10000, "mm") bedW!: number;
  @Num(10, 10000, "mm") bedH!: number;
  /** spot at focus, mm; null: the beam's default */
  @OrNull() @Num(0.001, 5, "mm") spotMm: number | null = null;
  /** run past each line end, mm; null: v²/2a */
  @OrNull() @Num(0, 200, "mm") overscanMm: number | null = null;
  @Flag() trimsRows: boolean = true;
  @Flag() bothWays: boolean = true;
  @Flag() galvo: boolean = false;
  @Num(0, 1000, "ms") jumpMs: number = 1;
  @Flag() enclosed: boolean = false;
  @Flag() extraction: boolean = false;
  @Flag() airAssist: boolean = true;
  /** depth per J/mm² in wood, mm, measured here; null: the beam's default (M10). Other materials: `depths`. */
  @OrNull() @Num(0.01, 5) depthPerJ: number | null = null;
  @SubList(() => PowerPoint, 40) powerPoints: PowerPoint[] = [];
  @Text(1000) note: string = "";
  /** changed over since it was last checked (rotary, lens, bed): what has been ticked so far; absent: nothing open */
  @Maybe() @TextList(20) changeOver?: string[];
  /** which of its safety facts nobody has answered yet: they count as missing, and are asked for; absent: none is open */
  @Since(1) @TextList(10) unanswered?: string[];
  /** depth per J/mm² measured in a material of the catalogue; wins over `depthPerJ` and the beam's default */
  @Since(1) @SubList(() => DepthIn, 40) depths?: DepthIn[];
  /** minutes to set it up for another job: focus, place, file; absent: the default */
  @Since(8) @Num(0, 600, "min") setupMin?: number;
  /** power, wear and what it cost, an hour of running, in minor units of the shop’s currency; absent: not known */
  @Since(7) @Whole(0, 1e8) minorPerHour?: number;
}

/** What makes a laser safe to stand beside. */
export const SAFETY_FACTS = ["enclosed", "extraction"] as const;
export type SafetyFact = (typeof SAFETY_FACTS)[number];
/** Has it? null: nobody has said. */
export const safe = (m: Machine, fact: SafetyFact): boolean | null => (m.unanswered?.includes(fact) ? null : m[fact]);
/** The machine with a safety fact answered; null: taken back. */
export function answered(m: Machine, fact: SafetyFact, has: boolean | null): Machine {
  const { unanswered = [], ...rest } = m;
  const open = SAFETY_FACTS.filter((f) => (f === fact ? has === null : unanswered.includes(f)));
  return { ...rest, [fact]: has ?? false, ...(open.length ? { unanswered: open } : {}) };
}

/** The machine as one whose safety facts are all answered with yes. */
export const allSafe = (m: Machine): Machine => SAFETY_FACTS.reduce((x, fact) => answered(x, fact, true), m);
/** The machine with the safety facts of another that stands in its place. */
export const asSafeAs = (m: Machine, other: Machine): Machine =>
  SAFETY_FACTS.reduce((x, fact) => answered(x, fact, safe(other, fact)), m);

/** What is looked at after a change-over, before the next burn. */
export const CHANGE_OVER = [
  "rotary off and unplugged, or on and its axis lead in",
  "bed at its height, nothing left under it",
  "lens clean, its mark the right way",
  "focus set anew",
  "steps per millimetre as for this axis",
  "test frame run with the beam off",
];

export const MACHINE: RecordKind<Machine> = { name: "machine", type: Machine, version: 1, migrations: [] };
