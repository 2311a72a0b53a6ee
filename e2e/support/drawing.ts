/** The drawing that a newcomer brings: two plain colours. */
export const RADISH = Buffer.from(
  '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="30mm" viewBox="0 0 60 30"><circle cx="15" ' +
    'cy="15" r="9" fill="#a8235a"/><rect x="30" y="10" width="24" height="8" fill="#2f6b3a"/></svg>',
);
export const svgFile = (name: string, buffer: Buffer): { name: string; mimeType: string; buffer: Buffer } => ({
  name,
  mimeType: "image/svg+xml",
  buffer,
});
