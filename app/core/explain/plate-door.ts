/** Test plates through the door: designed from a spec, read from cells. */
import { spaced } from "../models/laser/plate";
import { Machine } from "../records/machine";
import type { PlateSpec } from "../records/plate-spec";
import { TestPlate } from "../records/job";
import { cellsOf, fitPlate, guardsOf, plateMinutes, sizeOf, zoomed } from "./plate";

/** The plate and the machine of a spec. @throws RangeError where ranges and numbers of cells don't go together */
export function plateOf(s: PlateSpec): { t: TestPlate; m: Machine } {
  const list = (given: number[], n: number | undefined, what: string): number[] => {
    if (!given.length) throw new RangeError(`“${what}” is empty.`);
    if (n === undefined) return given;
    if (given.length !== 2) throw new RangeError(`“${what}” with a number of cells is two values, from and to.`);
    return spaced(given[0], given[1], n, s.spacing);
  };
  const m: Machine = {
    ...new Machine(),
    id: "machine",
    name: "the machine",
    beam: s.beam,
    watts: s.watts,
    maxSpeed: s.maxSpeed ?? null,
    powerPoints: s.powerPoints ?? [],
    bedW: 600,
    bedH: 400,
  };
  const t: TestPlate = {
    ...new TestPlate(),
    id: s.id,
    at: "2000-01-01T00:00",
    question: s.question,
    machineId: m.id,
    powers: list(s.powers, s.rows, "powers"),
    speeds: list(s.speeds, s.cols, "speeds"),
    interval: s.interval,
    passes: s.passes,
    cellMm: s.cellMm,
    gapMm: s.gapMm,
    ...(s.scrapW !== undefined && s.scrapH !== undefined ? { scrapW: s.scrapW, scrapH: s.scrapH } : {}),
    cells: s.cells,
  };
  const beyond = t.cells.find((c) => c.row >= t.powers.length || c.col >= t.speeds.length);
  if (beyond) throw new RangeError(`There is no cell in row ${beyond.row}, column ${beyond.col}: they count from 0.`);
  return { t, m };
}

/** Cells, labels, size, minutes and what stands against it. */
export function plateReport(s: PlateSpec) {
  const { t, m } = plateOf(s);
  return {
    cells: cellsOf(t, m),
    labels: {
      rows: t.powers.map((p) => `${Math.round(1000 * p) / 10}%`),
      cols: t.speeds.map((v) => String(Math.round(10 * v) / 10)),
      id: t.id,
    },
    ...sizeOf(t),
    minutes: plateMinutes(t, m),
    guards: guardsOf(t, { machine: m }),
  };
}

/** What the readings say: edges with their 90 % intervals, what to go by, which cells would tell most, a closer plate. */
export function readReport(s: PlateSpec) {
  const { t, m } = plateOf(s);
  const fit = fitPlate(t, m, s.first ?? null);
  return { ...fit, closer: zoomed(t, fit, m) };
}
