/**
 * The part of CSS that drawings use: type, class, id and universal selectors, compounds and descendants, with
 * specificity; named, hex and rgb() colours.
 */
import { converter, modeHsl, modeRgb, parse as parseColour, useMode as register } from "culori/fn";

register(modeRgb);
register(modeHsl);
const toRgb = converter("rgb");

export interface Rule {
  /** from the outermost ancestor to the element itself */
  chain: { tag: string | null; id: string | null; classes: string[] }[];
  weight: number;
  order: number;
  declarations: Record<string, string>;
}
export interface Matchable {
  tag: string;
  id: string | null;
  classes: string[];
  parent: Matchable | null;
}

export function parseDeclarations(text: string): Record<string, string> {
  const out: Record<string, string> = {};
  for (const part of text.split(";")) {
    const at = part.indexOf(":");
    if (at > 0)
      out[part.slice(0, at).trim().toLowerCase()] = part
        .slice(at + 1)
        .replace(/!\s*important/i, "")
        .trim();
  }
  return out;
}

/** @throws Error for a selector beyond the part of CSS that is read here */
export function parseSheet(text: string): Rule[] {
  const rules: Rule[] = [];
  const clean = text
    .replace(/\/\*[\s\S]*?\*\//g, "")
    .replace(/<!--|-->/g, "")
    .replace(/@(?:import|charset|namespace)[^;]*;/g, "")
    .replace(/@(?:font-face|page)[^{]*\{[^}]*\}/g, "");
  if (/@\w/.test(clean))
    throw new Error(
      "style rules with conditions (@media and the like) cannot be read; save the drawing with plain colours",
    );
  const re = /([^{}]+)\{([^{}]*)\}/g;
  for (let m = re.exec(clean); m; m = re.exec(clean)) {
    const declarations = parseDeclarations(m[2]);
    for (const selector of m[1].split(",")) {
      const s = selector.trim();
      if (!s) continue;
      const chain = s.split(/\s+/).map((one) => {
        const parts = /^([a-zA-Z][\w-]*|\*)?((?:[.#][\w-]+)*)$/.exec(one);
        if (!parts)
          throw new Error(`the style selector “${s.slice(0, 40)}” cannot be read; give the shapes plain colours`);
        const marks = parts[2].match(/[.#][\w-]+/g) ?? [];
        return {
          tag: parts[1] && parts[1] !== "*" ? parts[1] : null,
          id: marks.find((x) => x[0] === "#")?.slice(1) ?? null,
          classes: marks.filter((x) => x[0] === ".").map((x) => x.slice(1)),
        };
      });
      const weight = chain.reduce((w, c) => w + (c.id ? 10000 : 0) + c.classes.length * 100 + (c.tag ? 1 : 0), 0);
      rules.push({ chain, weight, order: rules.length, declarations });
    }
  }
  return rules.sort((a, b) => a.weight - b.weight || a.order - b.order);
}

const fits = (c: Rule["chain"][number], e: Matchable): boolean =>
  (!c.tag || c.tag === e.tag) && (!c.id || c.id === e.id) && c.classes.every((k) => e.classes.includes(k));

export function matches(rule: Rule, e: Matchable): boolean {
  let k = rule.chain.length - 1;
  if (!fits(rule.chain[k], e)) return false;
  for (let up = e.parent; k > 0 && up; up = up.parent) if (fits(rule.chain[k - 1], up)) k--;
  return k === 0;
}

export interface Ink {
  hex: string;
  alpha: number;
}

/** A colour of any CSS spelling as `#rrggbb` and alpha; null when it is no colour. */
export function ink(text: string): Ink | null {
  const parsed = parseColour(text.trim().toLowerCase());
  const c = parsed && toRgb(parsed);
  if (!c) return null;
  const two = (v: number): string =>
    Math.round(Math.min(1, Math.max(0, v)) * 255)
      .toString(16)
      .padStart(2, "0");
  return { hex: `#${two(c.r)}${two(c.g)}${two(c.b)}`, alpha: c.alpha ?? 1 };
}
