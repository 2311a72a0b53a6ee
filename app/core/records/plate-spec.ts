/** A test plate told by itself, as the door takes it: a machine in its figures, ranges, and what was read of the cells. */
import { BEAMS, PLATE_QUESTIONS, type PlateQuestion } from "./ids";
import { Maybe, Num, NumList, OneOf, SubList, Text, Whole } from "./fields";
import { PlateCell } from "./job";
import { PowerPoint } from "./machine";

export class PlateSpec {
  @OneOf(PLATE_QUESTIONS) question: PlateQuestion = "window";
  @OneOf(BEAMS) beam: (typeof BEAMS)[number] = "co2";
  /** rated optical W */
  @Num(0.1, 5000, "W") watts!: number;
  @Maybe() @Num(1, 50000, "mm/s") maxSpeed?: number;
  @Maybe() @SubList(() => PowerPoint, 40) powerPoints?: PowerPoint[];
  /** shares of the panel; with `rows` two of them, from and to */
  @NumList(30) powers!: number[];
  /** mm/s; with `cols` two of them, from and to */
  @NumList(30) speeds!: number[];
  @Maybe() @Whole(1, 30) rows?: number;
  @Maybe() @Whole(1, 30) cols?: number;
  @OneOf(["geometric", "linear"]) spacing: "geometric" | "linear" = "geometric";
  @Num(0.005, 5, "mm") interval: number = 0.1;
  @Whole(1, 50) passes: number = 1;
  @Num(1, 100, "mm") cellMm: number = 8;
  @Num(0, 50, "mm") gapMm: number = 2;
  @Maybe() @Num(1, 5000, "mm") scrapW?: number;
  @Maybe() @Num(1, 5000, "mm") scrapH?: number;
  /** J/mm² at which the top is thought to go; absent: nobody knows */
  @Maybe() @Num(0.001, 1000, "J/mm²") first?: number;
  @Text(40) id: string = "plate";
  @SubList(() => PlateCell, 900) cells: PlateCell[] = [];
}
