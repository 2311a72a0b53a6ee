/** Packets of the sample’s jobs stay as they were, to the byte; what changes on purpose is deleted and written by `npm run fixtures`. */
import { readdirSync, readFileSync } from "node:fs";
import { loadClip } from "../door/kernel";
import { packetsTold } from "../testing/packets";

const read = (path: string): string => readFileSync(new URL(`../../fixtures/${path}`, import.meta.url), "utf8");
const FROZEN = readdirSync(new URL("../../fixtures/v1/", import.meta.url));

test.each(FROZEN)("what goes to the laser of %s", async (name) => {
  const { beam, packets } = await packetsTold(read(`v1/${name}`), await loadClip());
  expect(Object.keys(packets).length > 0).toBe(beam);
  expect(packets).toEqual(JSON.parse(read(`packets/${name.replace(".richlayer", "")}`)));
});
