/**
 * An SVG file read into a tree of elements with their styles. Guards: no document type (so no entities), nesting at most
 * 256 deep, at most 200 000 elements. Scripts, links, external references and animation are dropped and never shown.
 */
import { SaxesParser } from "saxes";
import { matches, parseDeclarations, parseSheet, type Matchable, type Rule } from "./css";

export interface SvgElement extends Matchable {
  attributes: Record<string, string>;
  children: SvgElement[];
  parent: SvgElement | null;
  /** style of this element alone: sheet, then inline; attributes lie beneath */
  style: Record<string, string>;
  text: string;
  line: number;
}

export class SvgError extends Error {}

const DEPTH_LIMIT = 256;
const COUNT_LIMIT = 200_000;
const BYTES_LIMIT = 8_000_000;

const local = (name: string): string => name.slice(name.indexOf(":") + 1);

/** How an element is named in a message: its tag, id and line. */
export const nameOf = (e: SvgElement): string =>
  `<${e.tag}${e.id ? ` id="${e.id.slice(0, 40)}"` : ""}> on line ${e.line}`;

/** @throws SvgError with one sentence that says what is wrong and where */
export function readSvg(text: string): { root: SvgElement; byId: Map<string, SvgElement> } {
  if (text.length > BYTES_LIMIT)
    throw new SvgError(
      `The file is ${(text.length / 1e6).toFixed(1)} MB; the limit is ${BYTES_LIMIT / 1e6} MB. Simplify its paths and try again.`,
    );
  const parser = new SaxesParser({ xmlns: false });
  let root: SvgElement | null = null;
  let now: SvgElement | null = null;
  let depth = 0;
  let count = 0;
  const byId = new Map<string, SvgElement>();
  const styles: string[] = [];
  parser.on("doctype", (d) => {
    if (/\[|ENTITY/i.test(d))
      throw new SvgError(
        `The file declares entities in its document type on line ${parser.line}; they are refused. Save it as plain SVG.`,
      );
  });
  parser.on("error", (e) => {
    throw new SvgError(
      `The file is not sound XML: ${e.message.replace(/^\d+:\d+:\s*/, "").replace(/\.$/, "")} (line ${parser.line}).`,
    );
  });
  parser.on("opentag", (t) => {
    if (++depth > DEPTH_LIMIT)
      throw new SvgError(`Elements are nested more than ${DEPTH_LIMIT} deep on line ${parser.line}.`);
    if (++count > COUNT_LIMIT) throw new SvgError(`The file has more than ${COUNT_LIMIT} elements.`);
    const raw = t.attributes as Record<string, string>;
    const attributes: Record<string, string> = {};
    for (const k of Object.keys(raw)) if (!/^on/i.test(k)) attributes[k === "xlink:href" ? "href" : k] = raw[k];
    const e: SvgElement = {
      tag: local(t.name),
      id: attributes.id ?? null,
      classes: (attributes.class ?? "").split(/\s+/).filter(Boolean),
      attributes,
      children: [],
      parent: now,
      style: {},
      text: "",
      line: parser.line,
    };
    if (now) now.children.push(e);
    else if (!root) root = e;
    if (e.id && !byId.has(e.id)) byId.set(e.id, e);
    now = e;
  });
  const addText = (s: string): void => {
    if (now && (now as SvgElement).tag === "style") (now as SvgElement).text += s;
  };
  parser.on("text", addText);
  parser.on("cdata", addText);
  parser.on("closetag", () => {
    depth--;
    if (now!.tag === "style") styles.push(now!.text);
    now = now!.parent;
  });
  try {
    parser.write(text).close();
  } catch (e) {
    if (e instanceof SvgError) throw e;
    throw new SvgError(`The file is not sound XML (line ${parser.line}).`);
  }
  if (!root || (root as SvgElement).tag !== "svg")
    throw new SvgError("The file is not an SVG drawing: its outermost element is not <svg>.");
  let rules: Rule[];
  try {
    rules = styles.flatMap(parseSheet);
  } catch (e) {
    throw new SvgError(`In <style>: ${(e as Error).message}.`);
  }
  const paint = (e: SvgElement): void => {
    for (const r of rules) if (matches(r, e)) Object.assign(e.style, r.declarations);
    if (e.attributes.style) Object.assign(e.style, parseDeclarations(e.attributes.style));
    e.children.forEach(paint);
  };
  paint(root);
  return { root, byId };
}
