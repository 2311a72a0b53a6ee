/** All exercises, in the order of a piece’s way. */
import { burnAStack, readAPlate, wayRound } from "./burning";
import type { Exercise } from "./exercise";
import { fillAndLevel, meltPowder, sandBack, spray, waitOrGo } from "./laying";
import { bringItBack, chooseTheWay, roundWork, weedAndOpen } from "./placing";
import { spotTheFlaw } from "./spotting";

export const EXERCISES: readonly Exercise[] = [
  chooseTheWay,
  spray,
  waitOrGo,
  readAPlate,
  burnAStack,
  wayRound,
  weedAndOpen,
  meltPowder,
  fillAndLevel,
  sandBack,
  bringItBack,
  roundWork,
  spotTheFlaw,
];
export const exercise = (id: string): Exercise | null => EXERCISES.find((e) => e.id === id) ?? null;
