/** Pictures: megapixels a second of each kind of dots, resampling, encoding and the whole way; beside them the same loop in C. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { DOT_MAKERS, rowsOf } from "../app/core/tone/kernels";
import { render } from "../app/core/tone/render";
import { resample } from "../app/core/tone/resample";
import type { Pixels } from "../app/core/tone/source";
import { recipe } from "../app/core/testing/pictures";
import { png } from "../app/io/export/png";

const [W, H] = [3750, 2000];
/** Floyd-Steinberg on one row of shares, again and again, as tight as C has it. */
const LOOP = `#include <stdio.h>
#include <stdlib.h>
#include <time.h>
int main(void){int w=${W},h=${H};double*s=malloc(8*w),*n=calloc(w+4,8);unsigned char*o=malloc(w);long sum=0;
for(int i=0;i<w;i++)s[i]=(double)i/w;clock_t t=clock();
for(int y=0;y<h;y++){double r=0,p=0,q=0;int x;for(x=0;x<w;x++){double v=s[x]+n[x+2]+r;int b=v>=0.5;o[x]=b;sum+=b;double e=v-b;
r=e*7/16;n[x+1]=p+e*3/16;p=q+e*5/16;q=e/16;}n[x+1]=p;n[0]=n[1]=n[w+2]=n[w+3]=0;}
printf("%.2f %ld",w*(double)h/1e6/((double)(clock()-t)/CLOCKS_PER_SEC),sum);return 0;}`;

/** Mpx/s of the loop compiled here; a word where there is no compiler. */
function plainC(): number | string {
  const dir = mkdtempSync(join(tmpdir(), "richlayer-c-"));
  try {
    writeFileSync(join(dir, "loop.c"), LOOP);
    execFileSync("cc", ["-O3", join(dir, "loop.c"), "-o", join(dir, "loop")], { stdio: "ignore" });
    return Number(execFileSync(join(dir, "loop"), { encoding: "utf8" }).split(" ")[0]);
  } catch {
    return "no C compiler here";
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

export function pictureRows(): { name: string; n: number; value: number; unit: string }[] {
  const rows: ReturnType<typeof pictureRows> = [];
  const mpx = (px: number, ms: number): number => Math.round(px / 10 / ms) / 100;
  const timed = (body: () => void): number => {
    const t = performance.now();
    body();
    return performance.now() - t;
  };
  const share = Float64Array.from({ length: W }, (_v, i) => i / W);
  const out = new Uint8Array(W);
  for (const m of DOT_MAKERS) {
    const make = rowsOf(m.id, W, { serpentine: false, perCm: 20, angle: 45, intervalMm: 0.08 });
    for (let y = 0; y < 100; y++) make(share, out);
    const ms = timed(() => {
      for (let y = 0; y < H; y++) make(share, out);
    });
    rows.push({ name: `dots: ${m.name}`, n: W * H, value: mpx(W * H, ms), unit: "Mpx/s" });
  }
  const c = plainC();
  if (typeof c === "number") rows.push({ name: "dots: the loop in C", n: W * H, value: c, unit: "Mpx/s" });
  else rows.push({ name: `dots: the loop in C (${c})`, n: 0, value: 0, unit: "Mpx/s" });
  const [pw, ph] = [4000, 5200];
  const data = Uint8Array.from({ length: pw * 3 }, (_v, i) => 128 + 100 * Math.sin(i / 97));
  const photo: Pixels = { w: pw, h: ph, channels: 3, max: 255, row: () => data };
  const ms = timed(() => void resample(photo, { x: 0, y: 0, w: pw, h: ph }, 3750, 5000));
  rows.push({ name: "resample to 300 × 400 mm at 0.08 mm", n: pw * ph, value: mpx(pw * ph, ms), unit: "Mpx/s" });
  const r = recipe(1, 1, {
    widthMm: 300,
    heightMm: 400,
    intervalMm: 0.08,
    fit: "cover",
    spot: { mm: 0.14, threshold: 0.6 },
    layOn: true,
  });
  let made = render(photo, { ...r, widthMm: 30, heightMm: 40 });
  const whole = timed(() => (made = render(photo, r)));
  const pack = timed(() => void png(made, 0.08));
  rows.push({ name: "PNG of it", n: made.w * made.h, value: mpx(made.w * made.h, pack), unit: "Mpx/s" });
  rows.push({
    name: "from pixels to PNG, 300 × 400 mm at 0.08 mm",
    n: made.w * made.h,
    value: Math.round(whole + pack),
    unit: "ms",
  });
  return rows;
}
