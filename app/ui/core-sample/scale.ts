/** Scales of a cross-section: µm to px, and a round length for the printed bar. */
/** 1, 2 or 5 times a power of ten that takes about `px` pixels. */
export function niceBar(umPerPx: number, px: number): number {
  const want = umPerPx * px;
  const ten = 10 ** Math.floor(Math.log10(want));
  const k = want / ten;
  return (k >= 5 ? 5 : k >= 2 ? 2 : 1) * ten;
}
export const barText = (um: number): string => (um >= 1000 ? `${um / 1000} mm` : `${um} µm`);

export interface Column {
  zone: string;
  x: number;
  w: number;
}

/** Zones side by side, wider for larger area, ground between; widths have a scale of their own. */
export function columns(zones: { zone: string; areaMm2: number }[], left: number, width: number): Column[] {
  const n = Math.max(1, zones.length);
  const gap = Math.max(14, Math.min(60, width * 0.09));
  const room = width - gap * (n + 1);
  const total = zones.reduce((a, z) => a + Math.sqrt(z.areaMm2), 0) || 1;
  const floor = Math.min(64, room / n);
  const spare = room - floor * n;
  let x = left + gap;
  return zones.map((z) => {
    const w = floor + (spare * Math.sqrt(z.areaMm2)) / total;
    const col = { zone: z.zone, x, w };
    x += w + gap;
    return col;
  });
}
