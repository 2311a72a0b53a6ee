/** What an act comes to, as its screen hears it. */
export interface Outcome {
  error?: string;
  /** another tab was first; the same act can be sent again */
  conflict?: boolean;
  field?: string;
  done?: string;
}
