/** What a rule is, what it finds, and the snag that comes of it. */
import type { Facts } from "../plan/facts";
import type { Severity } from "../records/ids";
import type { World } from "../records/world";

export interface Fix {
  id: string;
  label: string;
  /** a new world in which the cause is gone; pure */
  apply(w: World): World;
}

export interface Snag {
  rule: number;
  severity: Severity;
  step: string | null;
  zone: string | null;
  numbers: Record<string, number | string | null>;
  why: string;
  fixes: Fix[];
  /** the written reason, or “accepted” for a hazard; null: it stands */
  waived: string | null;
}

export interface Rule {
  id: number;
  severity: Severity;
  /** what it watches, in a few words */
  title: string;
  find(f: Facts): Finding[];
}

/** What a rule finds; `severity` only where it is graver than the rule's own. */
export type Finding = Omit<Snag, "rule" | "severity" | "waived"> & { severity?: Severity };

export const whereOf = (s: Pick<Snag, "step" | "zone">): string => `${s.step ?? ""}/${s.zone ?? ""}`;
