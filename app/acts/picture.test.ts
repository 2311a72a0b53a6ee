/** Acts on a job's picture and on the colours beneath it: what is stored, what is refused in words, what undo brings back. */
import { shop, SHELF, a1 } from "../core/testing/worlds";
import { makePlan } from "../core/plan/plan";
import { pictureView } from "../views/picture";
import { commit, undo } from "../store/acts";
import { db, RichLayerDb, useDb } from "../store/db";
import { readPhoto, readPhotos, readWorld } from "../store/queries";
import type { Job } from "../core/records/job";
import { houseAct } from "./house";
import { jobAct } from "./job";

let n = 0;
beforeEach(async () => {
  globalThis.__richLayerClock = () => Date.UTC(2027, 0, 11, 10);
  useDb(new RichLayerDb(`picture-${n++}`));
  const w = a1();
  const job: Job = { ...w.job, id: "job", zones: [], artwork: null, substrate: { ...w.job.substrate, w: 150, h: 90 } };
  await commit("beginning", [
    { table: "shop", id: "shop", next: shop() },
    { table: "machines", id: w.machines[0].id, next: w.machines[0] },
    ...SHELF().map((p) => ({ table: "products" as const, id: p.id, next: p })),
    { table: "jobs", id: "job", next: job },
  ]);
});
afterEach(() => {
  db().close();
  globalThis.__richLayerClock = undefined;
});
const job = async (): Promise<Job> => (await readWorld("job"))!.job;
const on = (intent: string, more: Record<string, string> = {}) => jobAct("job", { intent, ...more });
const take = (more: Record<string, string> = {}) =>
  on("picture", {
    name: "heron.jpg",
    data: "/9j/AAAA",
    pxW: "3000",
    pxH: "1800",
    exif: "6",
    small: "AAAA",
    smallW: "3",
    ...more,
  });
const put = (field: string, value: string) => on("picture-set", { field, value });
const tone = (step: number, field: string, value: string) => on("tone-set", { step: String(step), field, value });

test("a picture on an empty job lies over the whole piece and beyond, over one colour; its original is no photo of a stage", async () => {
  expect((await take()).error).toBeUndefined();
  const j = await job();
  expect(j.picture).toMatchObject({ name: "heron.jpg", exif: 6, pxW: 3000, fit: "cover", w: 152, h: 92 });
  expect(j.areas).toEqual({ kind: "whole" });
  expect(j.zones).toHaveLength(1);
  expect(j.zones[0].areaMm2).toBeCloseTo(150 * 90, 6);
  expect((await readPhoto(j.picture!.photo))!.data).toBe("/9j/AAAA");
  expect(await readPhotos("job")).toEqual([]);
  await undo();
  expect((await job()).picture).toBeUndefined();
  expect(await db().photos.count()).toBe(0);
});
test("another one takes its place with size and tones; the old original goes, and undo brings it back", async () => {
  await take();
  await on("tone-add", { kind: "levels" });
  const first = (await job()).picture!.photo;
  globalThis.__richLayerClock = () => Date.UTC(2027, 0, 11, 11);
  await take({ name: "gull.png", exif: "1" });
  const j = await job();
  expect(j.picture).toMatchObject({ name: "gull.png", tone: [{ do: "levels" }] });
  expect(j.picture!.exif).toBeUndefined();
  expect(await readPhoto(first)).toBeUndefined();
  await undo();
  expect((await job()).picture!.photo).toBe(first);
  expect((await readPhoto(first))!.data).toBe("/9j/AAAA");
});
test("a new job begins with a photo, named after it, and one undo takes both away", async () => {
  const { done } = await houseAct({
    intent: "new-from-picture",
    name: "grey_heron-at-dusk.jpg",
    data: "/9j/AAAA",
    pxW: "3000",
    pxH: "1800",
    exif: "1",
    small: "AAAA",
    smallW: "3",
  });
  const made = (await readWorld(done!))!.job;
  expect(made).toMatchObject({ title: "Grey heron at dusk", areas: { kind: "whole" } });
  expect((await readPhoto(made.picture!.photo))!.jobId).toBe(done);
  await undo();
  expect(await readWorld(done!)).toBeNull();
  expect(await db().photos.count()).toBe(0);
});
test("the same job again has its picture, colours and an original of its own: the first may be deleted", async () => {
  await take();
  await on("areas", { kind: "bands" });
  const { done } = await houseAct({ intent: "job-again", from: "job", pieces: "3", due: "", dayFirst: "true" });
  const again = (await readWorld(done!))!.job;
  expect(again.areas).toEqual((await job()).areas);
  expect(again.picture).toMatchObject({ name: "heron.jpg", w: 152 });
  expect(again.picture!.photo).not.toBe((await job()).picture!.photo);
  await houseAct({ intent: "delete-job", id: "job" });
  expect((await readPhoto(again.picture!.photo))!.data).toBe("/9j/AAAA");
});
test("one larger than can go out in a file again is refused", async () => {
  expect((await take({ data: `/9j/${"A".repeat(48_000_001)}` })).error).toMatch(/heron.jpg.*more than 36 MB/);
});
test("the areas follow the blank, whatever changes it, and a drawing takes their place", async () => {
  await take();
  await on("set", { field: "substrate.w", value: "200 mm" });
  expect((await job()).zones[0].areaMm2).toBeCloseTo(200 * 90, 6);
  await on("set", { field: "substrate.blank", value: "oval" });
  expect((await job()).zones[0].areaMm2).toBeCloseTo(Math.PI * 100 * 45, -1);
  await on("areas", { kind: "bands" });
  const j = await job();
  expect(j.zones.length).toBe(4);
  expect(j.areas!.strips!.at(-1)!.to).toBeCloseTo(90, 6);
});

describe("with a picture", () => {
  beforeEach(async () => void (await take()));
  test("size, place, fit, turn and overrun in mm or per cent", async () => {
    await put("w", "100 mm");
    await put("dx", "-4 mm");
    await put("quarters", "5");
    await put("fit", "contain");
    expect((await job()).picture).toMatchObject({ w: 100, dx: -4, quarters: 1, fit: "contain" });
    await put("overrun", "2 %");
    expect((await job()).picture).toMatchObject({ w: 156, h: 96 });
    expect((await job()).picture!.dx).toBeUndefined();
    await put("overrun", "0.5 mm");
    expect((await job()).picture).toMatchObject({ w: 151, h: 91 });
    await on("picture-at", { dx: "1.234", dy: "0" });
    expect((await job()).picture!.dx).toBe(1.23);
  });
  test.each([
    ["w", "0", /some width/],
    ["fit", "squeeze", /“squeeze” is no fit/],
    ["render", "woven", /no way to make tones/],
    ["overrun", "-80 mm", /nothing of the picture/],
    ["mix", "1, 2", /Three shares/],
    ["mix", "0, 0, 0", /Three shares/],
    ["haste", "1", /nothing called “haste”/],
  ])("%s of “%s” is refused in words", async (field, value, says) => {
    const before = await job();
    expect((await put(field, value)).error).toMatch(says);
    expect(await job()).toEqual(before);
  });
  test("a part of it, within it", async () => {
    await on("picture-crop", { x: "10", y: "20 %", w: "50", h: "60" });
    expect((await job()).picture!.crop).toEqual({ x: 0.1, y: 0.2, w: 0.5, h: 0.6 });
    expect((await on("picture-crop", { x: "60", y: "0", w: "50", h: "50" })).error).toMatch(/within the picture/);
    await on("picture-crop", { x: "0", y: "0", w: "100", h: "100" });
    expect((await job()).picture!.crop).toBeUndefined();
  });
  test("tone steps are added, set, moved, passed over and taken away, in their order", async () => {
    await on("tone-add", { kind: "levels" });
    await on("tone-add", { kind: "sharpen" });
    await on("tone-add", { kind: "curve" });
    await tone(0, "black", "4 %");
    await tone(0, "white", "0.9");
    await tone(1, "radiusMm", "0.3 mm");
    await tone(2, "points", "[0,0,0.4,0.6,1,1]");
    await tone(1, "off", "true");
    expect((await job()).picture!.tone).toEqual([
      { do: "levels", black: 0.04, white: 0.9, gamma: 1 },
      { do: "sharpen", amount: 80, radiusMm: 0.3, off: true },
      { do: "curve", points: [0, 0, 0.4, 0.6, 1, 1] },
    ]);
    await on("tone-move", { step: "2", to: "0" });
    expect((await job()).picture!.tone.map((s) => s.do)).toEqual(["curve", "levels", "sharpen"]);
    await on("tone-remove", { step: "1", to: "" });
    expect((await job()).picture!.tone.map((s) => s.do)).toEqual(["curve", "sharpen"]);
    expect((await tone(7, "black", "1")).error).toMatch(/no longer there/);
    expect((await tone(0, "points", "[0]")).error).toMatch(/two points/);
    expect((await on("tone-add", { kind: "blur" })).error).toMatch(/no tone step/);
  });
  test("steps are kept by name in the shop, used on another picture to the byte, let go; undo covers each", async () => {
    await on("tone-add", { kind: "levels" });
    await tone(0, "black", "12 %");
    const { tone: steps } = (await job()).picture!;
    expect((await on("tones-keep", { name: " Slate by night " })).error).toBeUndefined();
    expect((await readWorld("job"))!.shop.toneLists).toEqual([{ name: "Slate by night", tone: steps }]);
    await on("tone-remove", { step: "0", to: "" });
    expect((await on("tones-keep", { name: "None" })).error).toMatch(/no steps to keep/);
    expect((await on("tones-use", { name: "Slate by night" })).error).toBeUndefined();
    expect((await job()).picture!.tone).toEqual(steps);
    expect((await on("tones-use", { name: "Other" })).error).toMatch(/no list “Other”/);
    await on("tones-forget", { name: "Slate by night" });
    expect((await readWorld("job"))!.shop.toneLists).toBeUndefined();
    await undo();
    expect((await readWorld("job"))!.shop.toneLists).toHaveLength(1);
  });
  test("dots as they were looked at side by side: kind, angle and way of the rows in one", async () => {
    expect(
      (await on("picture-dots", { render: "line-screen", angle: "75", serpentine: "true" })).error,
    ).toBeUndefined();
    expect((await job()).picture).toMatchObject({ render: "line-screen", angle: 75, serpentine: true });
    await undo();
    expect((await job()).picture).toMatchObject({ render: "floyd-steinberg" });
    expect((await on("picture-dots", { render: "stars", angle: "", serpentine: "" })).error).toMatch(
      /“stars” is no way/,
    );
  });
  test("a part is marked to be watched, or to be made lighter", async () => {
    const ring = JSON.stringify([0.2, 0.2, 0.6, 0.2, 0.6, 0.7]);
    await on("picture-region", { ring, step: "" });
    expect((await job()).picture!.watched!.ring).toHaveLength(6);
    await on("picture-region", { ring: "[]", step: "" });
    expect((await job()).picture!.watched).toBeUndefined();
    await on("tone-add", { kind: "brighten" });
    await on("picture-region", { ring, step: "0" });
    expect((await job()).picture!.tone[0].region).toHaveLength(6);
  });
  test("bands are moved, made wider, taken away; a gap is told", async () => {
    await on("areas", { kind: "bands" });
    const view = async () => pictureView(makePlan((await readWorld("job"))!, null));
    expect((await view()).thin).toEqual([]);
    const [first, second] = (await job()).areas!.strips!;
    await on("bands", { zone: second.zone, field: "from", value: "40 mm" });
    const [gap] = (await view()).thin;
    expect(gap.least).toBe(0);
    expect(gap.to - gap.from).toBeGreaterThan(5);
    expect((await on("bands", { zone: second.zone, field: "to", value: "10 mm" })).error).toMatch(/ends behind/);
    await on("band-remove", { zone: first.zone });
    expect((await job()).zones.map((z) => z.id)).not.toContain(first.zone);
    await on("band-add", { zone: "", value: "" });
    expect((await view()).thin).toEqual([]);
    expect((await job()).zones.length).toBe(4);
  });
  test("a way that takes one colour says so under four bands, and offers the one for bands", async () => {
    await on("areas", { kind: "bands" });
    const heeds = pictureView(makePlan((await readWorld("job"))!, null)).heeds;
    const said = heeds.find((h) => /takes 1 colour/.test(h.say))!;
    expect(said.mend).toMatchObject({ act: { intent: "set", field: "route", value: "A4" } });
    await on("set", { field: "route", value: "A4" });
    const after = pictureView(makePlan((await readWorld("job"))!, null));
    expect(after.heeds.some((h) => /takes 1 colour/.test(h.say))).toBe(false);
    expect(after.works.length).toBeGreaterThan(0);
  });
  test("left away it is gone with its original, and the colours stay", async () => {
    const id = (await job()).picture!.photo;
    expect((await on("picture-away")).error).toBeUndefined();
    expect((await job()).picture).toBeUndefined();
    expect((await job()).zones).toHaveLength(1);
    expect(await readPhoto(id)).toBeUndefined();
    expect((await on("picture-away")).error).toMatch(/no picture/);
    expect((await put("w", "5")).error).toMatch(/no picture/);
  });
});
