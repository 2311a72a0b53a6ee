/** Kinds of piece that jobs often begin with: a blank and what it is used for. All of it is a beginning that the Brief changes. */
import type { Use } from "../records/ids";
import type { Substrate } from "../records/job";
import type { SubstrateId } from "./substrates";

export interface PieceKind {
  id: string;
  name: string;
  use: readonly Use[];
  blank: Omit<Substrate, "id"> & { id: SubstrateId };
}

export const PIECES: readonly PieceKind[] = [
  {
    id: "bed-marker",
    name: "Marker for a garden bed",
    use: ["outdoors", "wet"],
    blank: { id: "oak", w: 120, h: 60, t: 8, blank: { form: "rounded", cornerMm: 6 } },
  },
  {
    id: "round-coaster",
    name: "Round coaster of slate",
    use: ["handled", "wet"],
    blank: { id: "slate", w: 100, h: 100, t: 6, blank: { form: "oval" } },
  },
  {
    id: "wood-coaster",
    name: "Square coaster of wood",
    use: ["handled", "wet"],
    blank: { id: "cherry", w: 95, h: 95, t: 8, blank: { form: "rounded", cornerMm: 8 } },
  },
  {
    id: "hanging-sign",
    name: "Hanging sign",
    use: ["outdoors", "wet"],
    blank: {
      id: "pine",
      w: 300,
      h: 120,
      t: 18,
      blank: { form: "rounded", cornerMm: 10 },
      holes: [
        { x: 20, y: 20, d: 6 },
        { x: 280, y: 20, d: 6 },
      ],
    },
  },
  {
    id: "drawer-tag",
    name: "Tag with a hole",
    use: ["handled"],
    blank: {
      id: "birch-ply",
      w: 60,
      h: 30,
      t: 4,
      blank: { form: "rounded", cornerMm: 6 },
      holes: [{ x: 8, y: 15, d: 4 }],
    },
  },
  {
    id: "name-plate",
    name: "Name plate of coated metal",
    use: ["handled"],
    blank: {
      id: "metal-coated",
      w: 80,
      h: 30,
      t: 1,
      blank: { form: "rounded", cornerMm: 3 },
      holes: [
        { x: 5, y: 15, d: 3 },
        { x: 75, y: 15, d: 3 },
      ],
    },
  },
  { id: "tile", name: "Glazed tile", use: ["display"], blank: { id: "tile-glazed", w: 150, h: 150, t: 7 } },
  { id: "wall-panel", name: "Panel of wood", use: ["display"], blank: { id: "walnut", w: 200, h: 150, t: 12 } },
  { id: "canvas", name: "Stretched canvas", use: ["display"], blank: { id: "canvas", w: 300, h: 200, t: 18 } },
  {
    id: "window-piece",
    name: "Clear sheet, painted from behind",
    use: ["display"],
    blank: { id: "acrylic-clear", w: 150, h: 100, t: 3, blank: { form: "rounded", cornerMm: 4 } },
  },
  {
    id: "glass-ball",
    name: "Ball of coated glass",
    use: ["display"],
    blank: { id: "glass-coated", w: 80, h: 80, t: 1, shape: "ball", diameter: 80 },
  },
];

/** undefined: there is none by that name */
export const pieceKind = (id: string): PieceKind | undefined => PIECES.find((k) => k.id === id);
