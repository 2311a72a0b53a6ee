/** What is used of the DXF reader: it comes without types. */
declare module "dxf" {
  export interface DxfEntity {
    type: string;
    x?: number;
    y?: number;
    r?: number;
    startAngle?: number;
    endAngle?: number;
    closed?: boolean;
    vertices?: { x: number; y: number; bulge?: number }[];
    transforms?: unknown[];
  }
  export interface Parsed {
    header: { insUnits?: number };
    entities: DxfEntity[];
    blocks: unknown[];
    tables: unknown;
  }
  export const config: { verbose: boolean };
  export function parseString(text: string): Parsed;
  export function denormalise(parsed: Parsed): DxfEntity[];
  export function toPolylines(parsed: Parsed): { polylines: { vertices: [number, number][] }[] };
}
