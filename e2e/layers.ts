/** The layers page: what is drawn is the state, to scale; edits, fixes, waivers and undo; and the door prints the same figures. */
import { choose } from "./support/choose";
import { knock } from "../scripts/door.mjs";
import { readdirSync, readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { faults, open, openSample, type Opened } from "./browser";
import { assert, journey } from "./support/suite";

const WEDNESDAY = "2027-01-13T11:20:00Z";
interface Drawn {
  key: string;
  top: number;
  bottom: number;
  px: number;
  scale: number;
}

/** Every layer drawn in sample and lens, with its µm and its height in px. */
const drawn = (p: Page): Promise<Drawn[]> =>
  p.evaluate(() =>
    [...document.querySelectorAll<SVGRectElement>("[data-layer][data-top-um]")].map((r) => {
      const svg = r.closest<SVGSVGElement>("svg[data-um-per-px]")!;
      return {
        key: `${svg.getAttribute("aria-label")}|${r.dataset.zone}|${r.dataset.layer}`,
        top: Number(r.dataset.topUm),
        bottom: Number(r.dataset.bottomUm),
        px: r.getBoundingClientRect().height,
        scale: Number(svg.dataset.umPerPx),
      };
    }),
  );
async function at(o: Opened, url: string, path: string): Promise<void> {
  await o.page.goto(new URL(path, url).href);
  await o.page.locator("svg[data-um-per-px]").first().waitFor();
}
/** Goes to another step on the page that is open. */
async function step(p: Page, id: string): Promise<void> {
  await p.locator(`[data-rail='${id}'][data-step]`).click();
  await p.locator(`[data-rail='${id}'][data-step][aria-current='step']`).waitFor();
  // drawn, and measured anew where the page has become wider or narrower for it
  await p.evaluate(() => new Promise((on) => requestAnimationFrame(() => requestAnimationFrame(on))));
}
const stepIds = (p: Page): Promise<string[]> =>
  p
    .locator("ol[aria-label='Steps'] > li[data-step]")
    .evaluateAll((l) => l.map((x) => x.getAttribute("data-step") ?? ""));
async function setField(p: Page, label: RegExp, value: string): Promise<void> {
  if (!(await p.getByLabel(label).first().isVisible())) await p.getByText("Change this step").click();
  await p.getByLabel(label).first().fill(value);
  await p.getByLabel(label).first().press("Enter");
  // stored and shown before the page is left
  await p.waitForTimeout(60);
  await p.waitForFunction(() => !document.querySelector("[aria-busy='true']"));
}

journey("layers are drawn to one scale, from the state", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  await openSample(o.page);
  for (const job of ["bed-markers", "splash-tiles"]) {
    await at(o, url, `jobs/${job}/layers`);
    for (const id of await stepIds(o.page)) {
      await step(o.page, id);
      const all = await drawn(o.page);
      for (const d of all)
        assert.ok(
          Math.abs(d.px - (d.bottom - d.top) / d.scale) <= 1,
          `${id}: ${d.key} is ${d.px} px, ${(d.bottom - d.top) / d.scale} wanted`,
        );
      const scales = new Map<string, Set<number>>();
      for (const d of all)
        (scales.get(d.key.split("|")[0]) ?? scales.set(d.key.split("|")[0], new Set()).get(d.key.split("|")[0])!).add(
          d.scale,
        );
      for (const [view, set] of scales) assert.equal(set.size, 1, `${view} has one scale`);
    }
    assert.ok(
      (await o.page.locator("svg[data-um-per-px] text").allTextContents()).some((t) => /^\d+ (µm|mm)$/.test(t)),
      "a bar is printed",
    );
    // the ghost of what was logged lies where the piece stands, and is gone when that very step is looked at
    const done = (
      await o.page
        .locator("ol[aria-label='Steps'] > li:has([aria-label='done'])")
        .evaluateAll((l) => l.map((x) => x.getAttribute("data-step")!))
    ).pop()!;
    await at(o, url, `jobs/${job}/layers?step=${done}`);
    assert.equal(await o.page.locator("[data-ghost]").count(), 0);
    await at(o, url, `jobs/${job}/layers?step=${job === "bed-markers" ? "coat.seal.1" : "reveal"}`);
    assert.ok((await o.page.locator("[data-ghost]").count()) > 0, "a ghost is drawn");
  }
  assert.deepEqual(faults(o.page), []);
  await o.close();
});

journey("drawn along the time rail, sample, card and clock move together; a leader ties lens and zone", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  await openSample(p);
  await at(o, url, "jobs/bed-markers/layers?step=engrave");
  const mid = async (name: RegExp): Promise<[number, number]> => {
    const b = (await p.getByRole("button", { name }).first().boundingBox())!;
    return [b.x + b.width * 0.5, b.y + b.height / 2];
  };
  await p.mouse.move(...(await mid(/^Step 6,/)));
  await p.mouse.down();
  await p.getByRole("heading", { name: "Core sample after step 5" }).waitFor();
  await p.mouse.move(...(await mid(/^Step 8,/)), { steps: 4 });
  await p.getByRole("heading", { name: "Core sample after step 8" }).waitFor();
  await p.getByRole("heading", { name: "Shellac, first coat", level: 2 }).waitFor();
  await p.mouse.move(...(await mid(/^Wait after step 8/)), { steps: 3 });
  await p.getByRole("heading", { name: "Core sample after step 8, while it waits" }).waitFor();
  assert.match(p.url(), /at=\d+/);
  await p.mouse.up();
  const [ring, lens] = await Promise.all([
    p.locator("[data-leader]").boundingBox(),
    p.getByRole("group", { name: /^Lens on/ }).boundingBox(),
  ]);
  assert.ok(ring && lens && Math.abs(ring.y + ring.height - lens.y) < 12, "the leader ends at the lens");
  await p.keyboard.press("]");
  await p.getByRole("heading", { name: "Core sample after step 9" }).waitFor();
  await o.close();
});

journey("one coat made thicker changes what is drawn by exactly that, from its step on", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  await openSample(o.page);
  const job = "jobs/blue-tiles/layers";
  await at(o, url, job);
  const steps = await stepIds(o.page);
  const coat = steps.find((s) => s.startsWith("coat.colour"))!;
  const look = async (): Promise<Map<string, Record<string, number>>> => {
    const out = new Map<string, Record<string, number>>();
    for (const id of steps) {
      await step(o.page, id);
      out.set(id, Object.fromEntries((await drawn(o.page)).map((d) => [d.key, d.bottom - d.top])));
    }
    return out;
  };
  const before = await look();
  await at(o, url, `${job}?step=${coat}`);
  await setField(o.page, /^Film, dry/, "16.5");
  // stored first, then shown: what is drawn is read once the page has it
  await o.page.getByRole("button", { name: /^Undo:/ }).waitFor();
  const thick = async (): Promise<number | undefined> => {
    const d = (await drawn(o.page)).find((x) => x.key.endsWith(`|${coat}`));
    return d && d.bottom - d.top;
  };
  const was = Object.entries(before.get(coat)!).find(([key]) => key.endsWith(`|${coat}`))![1];
  await expect.poll(thick, { timeout: 60_000 }).not.toBe(was);
  const after = await look();
  let moved = 0;
  for (const id of steps) {
    const [a, b] = [before.get(id)!, after.get(id)!];
    for (const key of Object.keys({ ...a, ...b })) {
      if (key.endsWith(`|${coat}`) && steps.indexOf(id) >= steps.indexOf(coat)) {
        assert.ok(Math.abs(b[key] - a[key] - 4.5) < 1e-6, `${id}: ${key} ${a[key]} became ${b[key]}`);
        moved++;
      } else assert.ok(Math.abs((a[key] ?? 0) - (b[key] ?? 0)) < 1e-6, `${id}: ${key} should not have changed`);
    }
  }
  assert.ok(moved > 10);
  await o.page.keyboard.press("Escape");
  await o.page.getByRole("button", { name: /^Undo:/ }).click();
  await o.page
    .getByText(/^Undone:/)
    .first()
    .waitFor();
  assert.deepEqual(await look(), before);
  await o.close();
});

journey("snags: fix in one press with its preview, waive with a reason, never for the three", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  await openSample(p);
  await at(o, url, "jobs/blue-tiles/layers");
  const can = p.locator("[data-snag='32']").first();
  await can.waitFor();
  assert.match((await can.textContent()) ?? "", /clears this snag/);
  await can.locator("[data-fix='can']").click();
  await p.locator("[data-snag='32']").first().waitFor({ state: "detached" });
  await p.getByRole("button", { name: /^Undo:/ }).click();
  await p.locator("[data-snag='32']").first().waitFor();
  await p.locator("[data-snag='32']").first().getByRole("button", { name: "Waive it…" }).click();
  await p.getByRole("button", { name: "Waive with this reason" }).click();
  await p.getByText("Write down why").waitFor();
  await p.getByLabel("Why may it stand?").fill("only two trial tiles");
  await p.getByRole("button", { name: "Waive with this reason" }).click();
  await p.getByText("1 accepted or waived").click();
  await p.getByText("Waived: only two trial tiles").waitFor();
  // a cause that is never waived
  await p.goto(new URL("jobs/blue-tiles/route", url).href);
  await p.getByLabel("Somebody stays with the laser, all through").click();
  await p.getByRole("button", { name: /^Undo: choice/ }).waitFor();
  await at(o, url, "jobs/blue-tiles/layers");
  const never = p.locator("[data-snag='73']");
  await never.waitFor();
  assert.equal(await never.getByRole("button", { name: /Waive|accepted/ }).count(), 0);
  await never.locator("[data-fix='attend']").click();
  await never.waitFor({ state: "detached" });
  await o.close();
});

journey(
  "steps are added, copied, removed, moved by menu; what no longer fits is listed; reload keeps it; undo goes back",
  async (url) => {
    const o = await open(url, { at: WEDNESDAY });
    const p = o.page;
    await openSample(p);
    await at(o, url, "jobs/blue-tiles/layers?step=label");
    const plain = await stepIds(p);
    const menu = async (item: string): Promise<void> => {
      const was = (await stepIds(p)).join();
      await p.getByRole("button", { name: /^Acts on/ }).click();
      await p.getByRole("menuitem", { name: item, exact: true }).click();
      await p.waitForFunction(
        (x) =>
          [...document.querySelectorAll("ol[aria-label='Steps'] > li")]
            .map((l) => l.getAttribute("data-step"))
            .join() !== x,
        was,
      );
    };
    await menu("Duplicate");
    await menu("Move one later");
    await menu("Let it rest");
    await menu("Remove");
    const changed = await stepIds(p);
    assert.equal(changed.length, plain.length + 1);
    await at(o, url, "jobs/blue-tiles/layers?step=coat.clear.1");
    await setField(p, /^Wait after it/, "1h20");
    await p.getByText("set by hand: 1 h 20").waitFor();
    await p.reload();
    await p.getByText("set by hand: 1 h 20").waitFor();
    // the brief changes: no clear coat, so the edit of its wait fits no more and is listed
    await p.goto(new URL("jobs/blue-tiles/route", url).href);
    await p.getByLabel("No clear coat").click();
    await p.getByRole("button", { name: /^Undo: choice/ }).waitFor();
    await at(o, url, "jobs/blue-tiles/layers");
    await p.getByRole("heading", { name: "1 change no longer fits" }).waitFor();
    for (let i = 0; i < 6; i++) {
      const undo = p.getByRole("button", { name: /^Undo:/ });
      const was = (await undo.getAttribute("aria-label")) ?? (await undo.textContent());
      await undo.click();
      await p.waitForFunction(
        (x) =>
          ![...document.querySelectorAll("button")].some((b) => (b.getAttribute("aria-label") ?? b.textContent) === x),
        was,
      );
      if (i === 2) await p.reload();
    }
    assert.deepEqual(await stepIds(p), plain);
    await p.getByRole("button", { name: /^Do again:/ }).click();
    await p.waitForFunction(
      (n) => document.querySelectorAll("ol[aria-label='Steps'] > li").length === n + 1,
      plain.length,
    );
    await o.close();
  },
);

journey("what the door prints is what the screen shows, for the frozen jobs", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  await p.getByRole("button", { name: "Start an empty shop" }).click();
  await p.getByText("Nothing is under way").waitFor();
  const files = readdirSync("fixtures/v1").filter((f) => !f.startsWith("kale"));
  assert.ok(files.length >= 5);
  for (const f of files) {
    const text = readFileSync(`fixtures/v1/${f}`, "utf8");
    const id = f.replace(".richlayer.json", "");
    await p.goto(new URL("workshop", url).href);
    await p.getByLabel("Rich Layer file").setInputFiles({
      name: f,
      mimeType: "application/json",
      buffer: Buffer.from(text.replace('"kind": "job"', '"kind": "shop"')),
    });
    await p.getByRole("button", { name: "Put it in place of everything" }).click();
    await p.getByText("Taken in: 1 job").first().waitFor();
    const zone = (JSON.parse(text) as { shop: { zone: string } }).shop.zone;
    const local = new Intl.DateTimeFormat("sv-SE", { timeZone: zone, dateStyle: "short", timeStyle: "short" })
      .format(new Date(WEDNESDAY))
      .replace(" ", "T");
    const door = knock(text, ["plan", "--now", local]);
    assert.equal(door.status, 0, door.stderr.toString());
    const plan = JSON.parse(door.stdout.toString()) as {
      ready: string;
      steps: { id: string; kind: string; ml: number | null; dryUm: number | null }[];
    };
    await at(o, url, `jobs/${id}/layers`);
    assert.equal(await p.locator("time[data-ready]").first().getAttribute("data-ready"), plan.ready, `${id}: ready`);
    assert.deepEqual(
      await stepIds(p),
      plan.steps.map((s) => s.id),
      `${id}: steps`,
    );
    for (const s of plan.steps.filter((x) => x.kind === "coat").slice(0, 2)) {
      await at(o, url, `jobs/${id}/layers?step=${s.id}`);
      const ml = s.ml as number;
      const shown = ml < 1 ? ml.toFixed(2) : ml < 10 ? ml.toFixed(1) : String(Math.round(ml));
      await p.getByText(`${shown} ml in all`).first().waitFor();
      assert.match(
        (await p.locator("#step-title").locator("xpath=../..").textContent()) ?? "",
        new RegExp(`dries to ${s.dryUm! < 10 ? s.dryUm : Math.round(s.dryUm!)} µm`),
      );
    }
  }
  assert.deepEqual(faults(p), []);
  await o.close();
});

/** A quantity or a clock time, as screens write them. */
const FIGURE = /\d[\d.,]*\s?(min|h|d|s|ml|g|µm|mm|%|°C|J\/mm²|W)(?![a-z])|\d\d:\d\d/;
/** What is not asked of: what was typed in, a trade's words, snags, a model's rows, drawings and fields. */
const APART =
  "[data-why],[data-given],[data-words],[data-snag],[data-figures],svg,script,style,title,input,select,option,textarea,.sr-only";
/**
 * Texts with a figure in them that stands in nothing that opens. Not asked of: what was typed in or is measured as one looks
 * (data-given), a trade's words (data-words), snags, which say their numbers themselves, a model's rows, drawings and fields.
 */
const shut = async (p: Page, titles: string[]): Promise<string[]> =>
  (
    (await p.evaluate(`(() => {
      const out = [];
      const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
      for (let n = walk.nextNode(); n; n = walk.nextNode()) {
        const e = n.parentElement;
        if (e && /\\d/.test(n.data) && !e.closest("${APART}") && e.checkVisibility()) out.push(n.data.trim());
      }
      return out;
    })()`)) as string[]
  ).filter((text) => FIGURE.test(titles.reduce((t, title) => t.replaceAll(title, ""), text)));

journey("every figure of plan, bench, wrap-up and today opens to its inputs and to what moves it", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  await openSample(p);
  const tried = new Map<string, string>();
  const look = async (path: string, titles: string[]): Promise<void> => {
    assert.deepEqual(await shut(p, titles), [], path);
    for (const kind of await p
      .locator("[data-why]")
      .evaluateAll((all) => [
        ...new Set(all.filter((e) => e.checkVisibility()).map((e) => (e as HTMLElement).dataset.why as string)),
      ])) {
      if (tried.has(kind)) continue;
      tried.set(kind, path);
      await p.locator(`[data-why="${kind}"]:visible`).first().click();
      const panel = p.getByRole("dialog");
      await panel.waitFor();
      assert.ok((await panel.locator("dl dt").count()) > 0, `${kind} of ${path} has no inputs`);
      for (const row of await panel.locator("dl dd").all())
        assert.match((await row.textContent()) as string, / · ./, `${kind} of ${path}: an input without an origin`);
      if (kind === "logged") assert.equal(await panel.locator("[role='status']").count(), 0);
      else await panel.locator("[data-moves]").waitFor();
      await p.keyboard.press("Escape");
      await panel.waitFor({ state: "detached" });
    }
  };
  const to = async (path: string, view: string): Promise<void> => {
    await p.goto(new URL(path, url).href);
    await p.locator(`main[data-view='${view}']`).waitFor();
  };
  // names of steps, of this job and of those on the rack beside it, longest first
  const titles: string[] = [];
  for (const [job, every] of [
    ["bed-markers", 3],
    ["splash-tiles", 3],
    ["drawer-tags", 4],
    ["stake-globes", 4],
    ["row-tokens", 4],
  ] as const) {
    await to(`jobs/${job}/layers`, "layers");
    const rows = p.locator("ol[aria-label='Steps'] li[data-step]");
    titles.push(
      ...(await rows.locator("button.flex > span:nth-child(2)").allTextContents()).map((t) =>
        t.replace(/ · by hand$/, "").trim(),
      ),
    );
    titles.sort((a, b) => b.length - a.length);
    for (let i = 0; i < (await rows.count()); i += every) {
      await rows.nth(i).locator("button.flex").click();
      await p
        .locator("#step-title")
        .getByText(
          (await rows.nth(i).locator("button.flex > span:nth-child(2)").textContent())!.replace(/ · by hand$/, ""),
        )
        .waitFor();
      await look(`${job}, step ${i + 1}`, titles);
    }
    await to(`jobs/${job}/calendar`, "calendar");
    await p.getByText("Counting back").waitFor({ state: "detached" });
    for (const view of ["calendar", "bench", "wrap-up"] as const) {
      if (view !== "calendar") await to(`jobs/${job}/${view}`, view);
      await look(`${job}, ${view}`, titles);
    }
  }
  await to("jobs/bed-markers/brief", "brief");
  const open1 = async (kind: string): Promise<void> => {
    await p.locator(`[data-why="${kind}"]:visible`).first().click();
    await p.getByRole("dialog").locator("[data-moves]").waitFor();
    await p.keyboard.press("Escape");
    tried.set(kind, "by itself");
  };
  await open1("spares");
  await to("", "today");
  await look("today", titles);
  await to("jobs/bed-markers/route", "route");
  await p
    .getByRole("checkbox", { name: /^Lay open/ })
    .first()
    .click();
  for (const kind of ["hands", "coats"]) await open1(kind);
  assert.deepEqual([...tried.keys()].sort(), [
    "begins",
    "coats",
    "energy",
    "hands",
    "latest",
    "layer",
    "level",
    "load",
    "logged",
    "margin",
    "minutes",
    "modelled",
    "opens",
    "ready",
    "shuts",
    "slack",
    "spares",
    "wait",
  ]);
  assert.deepEqual(faults(p), []);
  await o.close();
});

journey(
  "what moves a figure is the plan's own answer: turned by hand, the page shows the very figure the panel told",
  async (url) => {
    const o = await open(url, { at: WEDNESDAY });
    const p = o.page;
    await openSample(p);
    await at(o, url, "jobs/splash-tiles/layers");
    const ready = async (): Promise<string> => (await p.locator("time[data-ready]").textContent()) as string;
    const before = await ready();
    await p.locator("[data-why='ready']").first().click();
    const lever = p.getByRole("dialog").locator("[data-lever='air.flow']");
    await lever.getByText("moving air").waitFor();
    const told = (await lever.locator("li span").last().textContent()) as string;
    assert.notEqual(told, before);
    // its link leads to where it is set
    await lever.getByRole("link").click();
    await p.locator("main[data-view='workshop']").waitFor();
    await choose(p, "Air over drying pieces", /moving|fan/i);
    await p.waitForFunction(() => !document.querySelector("[aria-busy='true']"));
    await at(o, url, "jobs/splash-tiles/layers");
    // it has begun: nothing moves until the change is taken over, and undo gives the old plan back
    assert.equal(await ready(), before);
    await p.getByRole("heading", { name: "Workshop or Shelf have changed" }).waitFor();
    await p.getByText(`→ ${told}`).waitFor();
    await p.getByRole("button", { name: "Take it over" }).click();
    await p.getByRole("heading", { name: "Workshop or Shelf have changed" }).waitFor({ state: "detached" });
    assert.equal(await ready(), told);
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);
