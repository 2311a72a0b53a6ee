/** How every chart looks: its text, lines and the sheet that tells a point. */
export const TEXT = { fill: "var(--muted)", fontSize: 13 };
export const AXIS = { tick: TEXT, stroke: "var(--strong-line)" };
export const SHEET = { background: "var(--lifted)", border: "1px solid var(--strong-line)", color: "var(--ink)" };
/** lines are told apart by their dashes too */
export const DASHES = [undefined, "7 4", "2 4", "10 3 2 3", "4 2"] as const;
/** names of a legend, legible whatever the colour of their line */
export const inInk = (name: string) => <span className="text-ink">{name}</span>;
