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
  [...text].map((c, i) => `<path transform="translate(${x + i * 25 * k} ${y}) scale(${k})" fill="${fill}" fill-rule="evenodd" d="${block[c]}"/>`).join("");

/** A bed marker, 100 × 44 mm: a word, a leaf pair, a rule beneath. */
export const bedMarker = (text: string, ink: string, leaf: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="44mm" viewBox="0 0 100 44">
<g fill="${leaf}"><path d="M12 40Q11 26 13 16L15 16Q14.5 26 15.5 40Z"/><path d="M13 18Q2 16 4 5Q14 7 13 18Z"/><path d="M15 16Q15 4 26 4Q27 15 15 16Z"/></g>
${word(text, 32, 9, 0.66, ink)}
<rect x="32" y="34" width="60" height="2.4" fill="${ink}"/>
</svg>`;

/** A splash tile, 140 mm square: three poppies on stems in a frame. */
export function poppies(petal: string): string {
  const flower = (x: number, y: number, r: number): string => `<g transform="translate(${x} ${y})">${[0, 72, 144, 216, 288].map((a) => `<ellipse transform="rotate(${a})" cx="0" cy="${-r * 0.62}" rx="${r * 0.46}" ry="${r * 0.56}"/>`).join("")}</g>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="140mm" height="140mm" viewBox="0 0 140 140"><style>.p{fill:${petal}}.s{fill:none;stroke:${petal};stroke-width:2.2;stroke-linecap:round}</style>
<g class="p">${flower(46, 48, 22)}${flower(92, 36, 18)}${flower(98, 84, 15)}</g>
<path class="s" d="M46 68Q44 100 52 130M92 52Q84 96 70 130M98 98Q92 118 84 130"/>
<rect class="s" x="5" y="5" width="130" height="130" rx="6"/></svg>`;
}
