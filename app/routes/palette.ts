/** Jobs for the palette, read when it is opened. */
import { readHeads } from "../store/queries";

export const clientLoader = async () => ({
  jobs: (await readHeads()).map((j) => ({ id: j.id, title: j.title })).sort((a, b) => a.title.localeCompare(b.title)),
});
