/** Names as they come: pasted lines, or a table with a line a piece. */
import Papa from "papaparse";
import type { NameRow } from "../../core/geometry/names";

/** names of one job at most */
export const NAMES_MOST = 500;
/** columns that hold no line of text */
const COLOUR = /^(colour|color)$/i;
const HEADS = /^(name|line ?\d*|text|first name|last name|surname)$/i;

/**
 * Names out of pasted text or a CSV: a line a piece; with a head, the columns are its lines in order, and “colour” says which it is to
 * have. Without a head the columns are lines. A number of pieces is not read: a name is written as often as it is wanted.
 * @throws Error with the line that is wrong
 */
export function readNames(text: string): NameRow[] {
  const got = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    delimiter: delimiterOf(text),
  });
  const bad = got.errors.find((e) => e.code === "MissingQuotes" || e.code === "InvalidQuotes");
  if (bad) throw new Error(`Line ${(bad.row ?? 0) + 1} has a quote that does not end.`);
  const rows = got.data.map((r) => r.map((c) => c.trim()));
  const head = rows[0]?.some((c) => COLOUR.test(c)) || rows[0]?.every((c) => HEADS.test(c)) ? rows.shift()! : null;
  const colour = head ? head.findIndex((c) => COLOUR.test(c)) : -1;
  const out = rows.map((r, i): NameRow => {
    const lines = r.filter((_c, k) => k !== colour).filter((c) => c !== "");
    if (!lines.length) throw new Error(`Line ${i + (head ? 2 : 1)} has a colour and no name.`);
    if (lines.length > 6)
      throw new Error(`Line ${i + (head ? 2 : 1)} has ${lines.length} lines of text; six fit at most.`);
    return { lines, colour: colour < 0 ? "" : (r[colour] ?? "") };
  });
  if (!out.length) throw new Error("There is no name in it yet.");
  if (out.length > NAMES_MOST)
    throw new Error(
      `${out.length.toLocaleString("en")} names are more than the ${NAMES_MOST.toLocaleString("en")} that one job takes.`,
    );
  return out;
}
/** A table by what divides its cells; a comma or semicolon within plain names that have no head is part of the name. */
function delimiterOf(text: string): string {
  const [first = ""] = text.split(/\r?\n/, 1);
  const by = ["\t", ";", ","].find((d) => first.includes(d));
  return by ?? "\u001f";
}
