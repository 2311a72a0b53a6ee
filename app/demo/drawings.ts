/** The sample's drawings, made of plain shapes: nothing traced, nothing borrowed. */
const block: Record<string, string> = {
  B: "M0 0H14Q20 0 20 7Q20 12 16 14Q22 16 22 23Q22 30 15 30H0ZM6 5V12H12Q14 12 14 8.5Q14 5 12 5ZM6 17V25H13Q16 25 16 21Q16 17 13 17Z",
  E: "M0 0H18V5.5H6V12H16V17.5H6V24.5H18V30H0Z",
  T: "M0 0H20V5.5H13V30H7V5.5H0Z",
  K: "M0 0H6V11L14 0H21L11.5 13L22 30H15L8 17.5L6 20V30H0Z",
  A: "M8 0H15L23 30H16.5L15 23H8L6.5 30H0ZM9 18H14L11.5 8Z",
  L: "M0 0H6V24.5H18V30H0Z",
};
const word = (text: string, x: number, y: number, k: number, fill: string): string =>
  [...text]
    .map(
      (c, i) =>
        `<path transform="translate(${x + i * 25 * k} ${y}) scale(${k})" fill="${fill}" fill-rule="evenodd" d="${block[c]}"/>`,
    )
    .join("");

const paths = (...ds: string[]): string => ds.map((d) => `<path d="${d}"/>`).join("");

/** A bed marker, 100 × 44 mm: a word, a leaf pair, a rule beneath. */
export const bedMarker = (text: string, ink: string, leaf: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="44mm" viewBox="0 0 100 44">
<g fill="${leaf}">${paths("M12 40Q11 26 13 16L15 16Q14.5 26 15.5 40Z", "M13 18Q2 16 4 5Q14 7 13 18Z", "M15 16Q15 4 26 4Q27 15 15 16Z")}</g>
${word(text, 32, 9, 0.66, ink)}
<rect x="32" y="34" width="60" height="2.4" fill="${ink}"/>
</svg>`;

/** A splash tile, 140 mm square: three poppies on stems in a frame. */
export function poppies(petal: string): string {
  const leaf = (a: number, r: number): string =>
    `<ellipse transform="rotate(${a})" cx="0" cy="${-r * 0.62}" rx="${r * 0.46}" ry="${r * 0.56}"/>`;
  const flower = (x: number, y: number, r: number): string =>
    `<g transform="translate(${x} ${y})">${[0, 72, 144, 216, 288].map((a) => leaf(a, r)).join("")}</g>`;
  const style = `.p{fill:${petal}}.s{fill:none;stroke:${petal};stroke-width:2.2;stroke-linecap:round}`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="140mm" height="140mm" viewBox="0 0 140 140"><style>${style}</style>
<g class="p">${flower(46, 48, 22)}${flower(92, 36, 18)}${flower(98, 84, 15)}</g>
<path class="s" d="M46 68Q44 100 52 130M92 52Q84 96 70 130M98 98Q92 118 84 130"/>
<rect class="s" x="5" y="5" width="130" height="130" rx="6"/></svg>`;
}

/** A door sign, 280 × 180 mm: a seed head between two leaves over a bar, three colours. */
export const doorSign =
  (): string => `<svg xmlns="http://www.w3.org/2000/svg" width="280mm" height="180mm" viewBox="0 0 280 180">
<g fill="#5d9a3c"><path d="M40 130Q60 60 130 70Q110 135 40 130Z"/><path d="M240 130Q220 60 150 70Q170 135 240 130Z"/></g>
<g fill="#e0a23a"><circle cx="140" cy="52" r="30"/></g>
<rect x="30" y="146" width="220" height="18" rx="6" fill="#5a2a52"/></svg>`;

/** The pod's outline and, cut out of it, its seeds. */
const POD = [
  "M2 7Q12 0 22 1Q34 1 42 7Q34 13 22 13Q12 13 2 7Z",
  ...[8, 20, 32].map((x) => `M${x} 7A2 2 0 1 0 ${x + 4} 7A2 2 0 1 0 ${x} 7Z`),
].join("");

/** A drawer tag, 44 × 14 mm: a pod with five seeds. */
export const drawerTag =
  (): string => `<svg xmlns="http://www.w3.org/2000/svg" width="44mm" height="14mm" viewBox="0 0 44 14">
<path fill="#22345c" d="${POD}" fill-rule="evenodd"/></svg>`;

/** A band of the sowing panel, its furrow along its lower edge. */
const band = (ink: string, y: number): string =>
  `<path fill="${ink}" d="M20 ${20 + y}H260V${44 + y}Q200 ${66 + y} 140 ${48 + y}T20 ${52 + y}Z"/>`;

/** A sowing panel, 280 mm square: four bands of the year with a furrow in each. */
export const sowingPanel =
  (): string => `<svg xmlns="http://www.w3.org/2000/svg" width="280mm" height="280mm" viewBox="0 0 280 280">
${["#7fb2d9", "#5d9a3c", "#f2c230", "#d8432f"].map((c, i) => band(c, i * 62)).join("\n")}</svg>`;

/** A tile of 90 mm: an hourglass of two seeds. */
export const seedGlass = (ink: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="90mm" viewBox="0 0 90 90"><path fill="${ink}" ` +
  `d="M20 10H70Q66 34 48 45Q66 56 70 80H20Q24 56 42 45Q24 34 20 10Z"/></svg>`;

/** A round of 80 mm: a ring and a heart in it. */
export const ringAndHeart = (ring: string, heart: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80"><path fill="${ring}" ` +
  `fill-rule="evenodd" d="M40 4A36 36 0 1 1 39.9 4ZM40 20A20 20 0 1 1 39.9 20Z"/><circle cx="40" cy="40" ` +
  `r="14" fill="${heart}"/></svg>`;

/** A stake globe, laid flat: half the way round, a ring of leaves. */
export const globe =
  (): string => `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="24mm" viewBox="0 0 120 24">
<g fill="#2b6fa6">${paths(...[8, 32, 56, 80, 104].map((x) => `M${x} 12Q${x + 6} 1 ${x + 12} 12Q${x + 6} 23 ${x} 12Z`))}</g></svg>`;
