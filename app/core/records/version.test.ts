/** Records say no: what is left out, what a newer Rich Layer wrote, and how an older record is brought up. */
import "reflect-metadata";
import { shop as soundShop } from "../testing/worlds";
import { Num, Since, Sub, SubList, Text, Whole } from "./fields";
import { RECORDS } from "./file";
import { check } from "./parse";
import { broughtUp, newestMinor, type Raw, type RecordKind, stamped, usedMinor } from "./version";
import { Shop } from "./shop";

class Part {
  @Num() mm!: number;
  @Since(3) @Text(10) hue?: string;
}
class Thing {
  @Whole(1, 2) version: number = 2;
  @Text(20) id!: string;
  @Num() depth: number = 4;
  @Since(1) @Num(0, 9) wet?: number;
  @SubList(() => Part) parts: Part[] = [];
  @Since(2) @Sub(() => Part) lid?: Part;
}
const THING: RecordKind<Thing> = {
  name: "thing",
  type: Thing,
  version: 2,
  migrations: [
    {
      to: 1,
      name: "thing: depth in mm",
      needs: ["deep"],
      of: ({ deep, ...r }) => ({ ...r, depth: Number(deep) * 10 }),
    },
    { to: 2, name: "thing: parts", needs: ["depth"], of: (r) => ({ ...r, parts: [] }) },
  ],
};
const thing = (more: object = {}): Thing => ({ version: 2, id: "a", depth: 4, parts: [], ...more });

describe("a field that is left out", () => {
  test("is told with its path, here and in what is held, and not filled in", () => {
    const { depth: _, ...lacks } = thing({ parts: [{ mm: 1 }, {}] });
    expect(check(Thing, lacks, "things[2]")).toEqual({
      ok: false,
      faults: [
        { path: "things[2].depth", message: "is missing" },
        { path: "things[2].parts[1].mm", message: "is missing" },
      ],
    });
    expect(check(Thing, lacks, "", "default")).toMatchObject({ ok: false, faults: [{ path: "parts[1].mm" }] });
    expect(check(Thing, thing({ parts: [{ mm: 1 }] }))).toEqual({ ok: true, value: thing({ parts: [{ mm: 1 }] }) });
  });
  test("every field of the shop but those that may be absent is asked for", () => {
    const sound: Raw = { ...soundShop() };
    expect(check(Shop, sound).ok).toBe(true);
    for (const key of Object.keys(new Shop())) {
      const r = check(Shop, { ...sound, [key]: undefined });
      expect([key, r]).toEqual([key, { ok: false, faults: [{ path: key, message: "is missing" }] }]);
    }
  });
});

describe("minor versions", () => {
  test("a record says the least one that knows what it uses", () => {
    expect(usedMinor(Thing, thing())).toBe(0);
    expect(usedMinor(Thing, thing({ wet: 0 }))).toBe(1);
    expect(usedMinor(Thing, thing({ wet: 1, lid: { mm: 1 } }))).toBe(2);
    expect(usedMinor(Thing, thing({ parts: [{ mm: 1 }, { mm: 1, hue: "red" }] }))).toBe(3);
    expect(newestMinor(Thing)).toBe(3);
    expect(stamped(THING, thing())).toEqual(thing());
    expect(stamped(THING, thing({ wet: 1 }))).toEqual({ ...thing({ wet: 1 }), minor: 1 });
  });
  test.each([
    [{ minor: 4 }, "version 2.4"],
    [{ version: 3 }, "version 3.0"],
    [{ version: 12, minor: 1 }, "version 12.1"],
  ])("%j: told in a sentence that a newer one wrote it", (said, version) =>
    expect(() => broughtUp(THING, { ...thing(), ...said }, 2)).toThrow(
      `the thing “a” was written by a newer Rich Layer (${version}; this one reads a thing up to 2.3). Update this one`,
    ),
  );
  test.each([
    [{ version: "1" }],
    [{ version: 1.5 }],
    [{ version: -1 }],
    [{ minor: null, version: NaN }],
    [{ minor: "x" }],
  ])("%j is no version", (said) =>
    expect(() => broughtUp(THING, { ...thing(), ...said }, 2)).toThrow(/no version that can be read/),
  );
  test("what is read carries no minor version any more", () =>
    expect(broughtUp(THING, { ...thing({ wet: 1 }), minor: 1 }, 2)).toEqual(thing({ wet: 1 })));
});

describe("migrations", () => {
  const old = { id: "a", deep: 0.4 };
  test("run one after another from the record’s own version, or from the file’s where it says none", () => {
    expect(broughtUp(THING, old, 0)).toEqual(thing());
    expect(broughtUp(THING, { ...old, version: 0 }, 2)).toEqual(thing());
    expect(broughtUp(THING, { id: "a", depth: 4, version: 1 }, 0)).toEqual(thing());
    expect(broughtUp(THING, { ...thing() }, 0)).toEqual(thing());
  });
  test("what its own version needs is asked for before anything is converted", () => {
    const lacks: string[] = [];
    broughtUp(THING, { id: "a" }, 0, (f) => lacks.push(f));
    expect(lacks).toEqual(["deep"]);
  });
  test("a gap in the way is told", () =>
    expect(() => broughtUp({ ...THING, migrations: [THING.migrations[1]] }, old, 0)).toThrow(/no way leads on/));
  test("of every kind lead from each version to the next, each with a name of its own", () => {
    const names = RECORDS.flatMap((k) => k.migrations.map((m) => m.name));
    expect(new Set(names).size).toBe(names.length);
    for (const k of RECORDS) {
      const to = k.migrations.map((m) => m.to);
      expect([k.name, to]).toEqual([k.name, to.map((_v, i) => k.version - to.length + 1 + i)]);
    }
  });
});
