/** What a figure on a screen carries so that it can be opened. */
import type { Input } from "../../core/explain/why/inputs";
import type { WhyAsk } from "../../workers/why-api";

export interface Opened {
  title: string;
  /** inputs with where each came from, asked for when the panel opens */
  rows(): Input[];
  /** what the worker needs to try what moves it; null: it was measured, logged or typed, and nothing can be varied */
  ask: WhyAsk | null;
}
