/** Machines: put in, measured, changed over, taken out. */
import { SUBSTRATES } from "../../core/catalogue/substrates";
import { defaultMachine } from "../../core/catalogue/starter";
import { Text } from "../../core/records/fields";
import { MachineForm as NewMachineForm } from "../../core/records/forms";
import type { Beam } from "../../core/records/ids";
import { answered, type Machine, type SafetyFact } from "../../core/records/machine";
import type { Shop } from "../../core/records/shop";
import { change, commit, Refused } from "../../store/acts";
import { readHeads } from "../../store/queries";
import { act, FieldForm, freeId, readField, tri, type Readers } from "../act";
import { typed } from "../answer";
import type { InShop } from "./shop";

class IdForm {
  @Text(120) id!: string;
}
class MachineForm extends FieldForm {
  @Text(120) id!: string;
}
class PointForm extends FieldForm {
  @Text(120) id!: string;
  /** a point of the list; `open` begins it, `close` ends it */
  @Text(200) point!: string;
}

/** Lines of what the panel says and the watts measured. */
function powerPoints(v: string): Machine["powerPoints"] {
  const lines = v.trim() === "" ? [] : v.trim().split(/\n+/);
  return lines.map((l, i) => {
    const [set, watts] = l
      .trim()
      .split(/[\s,;]+/)
      .map(Number);
    if (!Number.isFinite(set) || !Number.isFinite(watts))
      throw new Refused(`Line ${i + 1}: give what the panel says and the watts measured, such as “50 22”.`);
    return { set, watts };
  });
}
/** A line each: a material’s name or id, and mm per J/mm² measured in it. */
function depthsIn(v: string): Machine["depths"] {
  const lines = v.trim() === "" ? [] : v.trim().split(/\n+/);
  const list = lines.map((l, i) => {
    const m = /^(.*?)[\s:,;]+([\d.]+)$/.exec(l.trim());
    const named = m?.[1].trim().toLowerCase();
    const s = SUBSTRATES.find((x) => x.id === named || x.name.toLowerCase() === named);
    if (!s) {
      const known = SUBSTRATES.map((x) => x.name.toLowerCase()).join(", ");
      throw new Refused(
        `Line ${i + 1}: give a material and its mm per J/mm², such as “slate 0.02”. Materials: ${known}.`,
      );
    }
    return { substrate: s.id, perJ: Number(m![2]) };
  });
  return list.length ? list : undefined;
}
const flag = (key: keyof Machine) => (v: string) => ({ [key]: v === "true" }) as Partial<Machine>;

const fact =
  (key: SafetyFact) =>
  (v: string, { m }: Of) => ({ unanswered: undefined, ...answered(m, key, tri(v)) });
/** What was found with one beam is not so of another: spot, depths and readings are open again, and so is the window's rating. */
const ofAnotherBeam = (m: Machine): Partial<Machine> => ({
  ...answered(m, "enclosed", null),
  spotMm: null,
  depthPerJ: null,
  depths: undefined,
  powerPoints: [],
});

type Of = { units: Shop["units"]; m: Machine; currency: string };
const FIELDS: Readers<Machine, Of> = {
  name: (v) => ({ name: v.trim() || "Laser" }),
  watts: (v) => ({ watts: typed.number(v) }),
  maxSpeed: (v) => ({ maxSpeed: typed.speedOrNull(v) }),
  rapid: (v) => ({ rapid: typed.speedOrNull(v) }),
  accel: (v) => ({ accel: typed.number(v) }),
  minorPerHour: (v, { currency }) => ({ minorPerHour: typed.money(v, currency) }),
  setupMin: (v) => ({ setupMin: typed.minutesOrNull(v) ?? undefined }),
  bedW: (v, { units }) => ({ bedW: typed.length(v, units) }),
  bedH: (v, { units }) => ({ bedH: typed.length(v, units) }),
  spotMm: (v) => ({ spotMm: typed.lengthOrNull(v) }),
  overscanMm: (v) => ({ overscanMm: typed.lengthOrNull(v) }),
  depthPerJ: (v) => ({ depthPerJ: typed.numberOrNull(v) }),
  depths: (v) => ({ depths: depthsIn(v) }),
  jumpMs: (v) => ({ jumpMs: typed.number(v) }),
  note: (v) => ({ note: v }),
  beam: (v, { m }) => (v === m.beam ? {} : { ...ofAnotherBeam(m), beam: v as Beam }),
  powerPoints: (v) => ({ powerPoints: powerPoints(v) }),
  trimsRows: flag("trimsRows"),
  bothWays: flag("bothWays"),
  galvo: flag("galvo"),
  enclosed: fact("enclosed"),
  extraction: fact("extraction"),
  airAssist: flag("airAssist"),
};

/** The change-over list with a point ticked or not; absent while nothing was changed over. */
function ticked({ changeOver = [], ...rest }: Machine, f: PointForm): Machine {
  if (f.point === "open") return { ...rest, changeOver: [] };
  if (f.point === "close") return rest;
  const others = changeOver.filter((x) => x !== f.point);
  return { ...rest, changeOver: f.value === "true" ? [...others, f.point] : others };
}

export const machineActs = [
  act("machine-add", NewMachineForm, (f, { machines }: InShop) => {
    const w = typed.number(f.watts);
    const m = defaultMachine(
      f.beam,
      w,
      freeId(
        `${f.beam}-${w}`,
        machines.map((x) => x.id),
        f.beam,
      ),
    );
    const named = { ...m, name: f.name.trim() || m.name };
    return commit(`machine “${named.name}”`, [{ table: "machines", id: m.id, next: named, base: null }]);
  }),
  act("machine", MachineForm, (f, { shop }: InShop) =>
    change<Machine>("machine", "machines", f.id, (m) => ({
      ...m,
      ...readField(FIELDS, f, { units: shop.units, currency: shop.currency, m }),
    })),
  ),
  act("change-over", PointForm, (f, _c: InShop) =>
    change<Machine>("change-over", "machines", f.id, (m) => ticked(m, f)),
  ),
  act("machine-remove", IdForm, async (f, _c: InShop) => {
    const used = (await readHeads()).find((j) => j.machineId === f.id && j.open === 1);
    if (used) throw new Refused(`“${used.title}” is planned on it. Give that job another machine first.`);
    return commit("machine taken out", [{ table: "machines", id: f.id, next: null }]);
  }),
];
