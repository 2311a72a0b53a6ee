/** A job: brief, artwork with its zones, route and choices, the plan's edits as data, waivers, wrap-up. The bench log stands apart. */
import { Begun } from "./begun";
import { Picture } from "./picture";
import { FLAWS, PLATE_QUESTIONS, PLATE_READS, ROUTE_IDS, USES, type PlateQuestion, type PlateRead } from "./ids";
import {
  Colour,
  Flag,
  Id,
  LocalTime,
  Maybe,
  Moment,
  Num,
  NumList,
  Outline,
  OneOf,
  OrNull,
  Scalar,
  Since,
  Sub,
  SubList,
  Text,
  TextList,
  Whole,
} from "./fields";
import { IsIn } from "class-validator";
import { type Raw, raw, raws, type RecordKind } from "./version";

/** How a flat blank is cut within its width and height; absent: a rectangle with sharp corners. */
export class Blank {
  @OneOf(["rounded", "oval", "path"]) form!: "rounded" | "oval" | "path";
  /** mm, rounded: of its corners */
  @Maybe() @Num(0, 2500, "mm") cornerMm?: number;
  /** path: outline in mm as SVG path data of straight lines, from the upper left corner; rings within one another are holes by turns */
  @Maybe() @Outline(1_000_000) path?: string;
}
/** A round hole, mm from the upper left corner of the blank. */
export class Hole {
  @Num(0, 5000, "mm") x!: number;
  @Num(0, 5000, "mm") y!: number;
  @Num(0.1, 2000, "mm") d!: number;
}
export class Substrate {
  /** substrate id of the catalogue */
  @Id() id: string = "hard-maple";
  /** mm */
  @Num(1, 5000, "mm") w: number = 100;
  @Num(1, 5000, "mm") h: number = 100;
  @Num(0.1, 500, "mm") t: number = 8;
  /** absent: flat */
  @Maybe() @OneOf(["flat", "ball", "cylinder"]) shape?: "flat" | "ball" | "cylinder";
  /** mm, of a ball or cylinder; absent: not measured */
  @Maybe() @Num(1, 1000, "mm") diameter?: number;
  @Since(3) @Sub(() => Blank) blank?: Blank;
  @Since(3) @SubList(() => Hole, 100) holes?: Hole[];
  /** mm along every edge that stay free of artwork; absent: none */
  @Since(3) @Num(0, 500, "mm") keepMm?: number;
  /** colour of this very sheet; absent: the material’s usual one */
  @Since(6) @Colour() colour?: string;
  /** what lies beneath its glaze, coating or cap, and how thick that is; absent: as is usual */
  @Since(6) @Colour() beneath?: string;
  @Since(6) @Num(1, 3000, "µm") skinUm?: number;
}

/** What a zone is on one piece, where it is another one on each: a name. */
export class OnPiece {
  /** piece from 1 */
  @Whole(1, 1e5) n!: number;
  @Text(400) text!: string;
  @Outline(400_000) outline!: string;
}
/** The block that names are fitted into, mm from the upper left corner of the artwork, and how they are set. */
export class NameBlock {
  @Num(-5000, 5000, "mm") x!: number;
  @Num(-5000, 5000, "mm") y!: number;
  @Num(0.5, 5000, "mm") w!: number;
  @Num(0.5, 5000, "mm") h!: number;
  @Flag() bold: boolean = true;
  /** all as large as the one that has the least room; else each as large as it can be */
  @Flag() oneSize: boolean = false;
  /** em between two letters besides what the font has */
  @Num(-0.2, 1) tracking: number = 0;
  /** what a font file of the maker’s own is called; absent: one that ships */
  @Maybe() @Text(120) font?: string;
}

/** One colour of the artwork: its visible region, measured (M13). */
export class Zone {
  @Id() id!: string;
  @Text(60) name!: string;
  @Colour() colour!: string;
  @Num(0, 1e8, "mm²") areaMm2!: number;
  /** null: not known (typed in by area only) */
  @OrNull() @Num(0, 1e8, "mm") perimeterMm: number | null = null;
  @OrNull() @Num(0, 1e5, "mm") narrowestMm: number | null = null;
  @OrNull() @Whole(0, 1e6) pieces: number | null = null;
  @OrNull() @Whole(0, 1e6) holes: number | null = null;
  /** mm², the smallest separate piece */
  @OrNull() @Num(0, 1e8, "mm²") smallestMm2: number | null = null;
  /** outline in mm as SVG path data, redrawn by us; empty when only the area is known */
  @Outline(4_000_000) outline: string = "";
  /** row extents: y0, y1, then [from, to] of 64 slices; empty when unknown (M2) */
  @NumList(200) rows: number[] = [];
  /** the finish from the Shelf; null with bare=false: not yet chosen */
  @OrNull() @Id() productId: string | null = null;
  /** left as it is */
  @Flag() bare: boolean = false;
  /** the colour that is to be seen: its finish follows from route and Shelf where none is picked; absent: only the one that is picked */
  @Since(2) @Colour() wanted?: string;
  /** left without paint, and burnt as dark as the beam makes the bare material */
  @Since(7) @Flag() burn?: boolean;
  /** another one on each piece: outlines as this one’s; area, perimeter and rows are then means, the rest the worst; absent: all alike */
  @Since(9) @SubList(() => OnPiece, 5000) onPieces?: OnPiece[];
}

export class Artwork {
  @Text(200) name: string = "";
  /** the file as it came, kept so that it can be measured again; empty for zones typed in */
  @Text(8_000_000) svg: string = "";
  /** mm, of its page */
  @Num(0.1, 5000, "mm") w!: number;
  @Num(0.1, 5000, "mm") h!: number;
  /** mm from the middle of the blank to that of the artwork, right and down; absent: in the middle */
  @Since(3) @Num(-5000, 5000, "mm") dx?: number;
  @Since(3) @Num(-5000, 5000, "mm") dy?: number;
  /** ° by which the drawing is turned about its middle, clockwise; zones are as turned, the size is the file’s */
  @Since(3) @Num(-180, 180, "°") turn?: number;
}

/** One band of a blend: mm along the way that the bands follow one another, from the edge of the blank, without what it overlaps. */
export class Strip {
  @Id() zone!: string;
  @Num(-5000, 5000, "mm") from!: number;
  @Num(-5000, 5000, "mm") to!: number;
}
/** Colour areas that are made by rule and not drawn: one colour all over, or bands; they follow the blank. */
export class Areas {
  @OneOf(["whole", "bands"]) kind!: "whole" | "bands";
  /** ° that the bands follow one another in: 0 downwards, 90 to the left */
  @Maybe() @Num(-180, 180, "°") angle?: number;
  /** mm that two neighbours lie over one another */
  @Maybe() @Num(0, 1000, "mm") overlapMm?: number;
  /** mm in which a band thins out to nothing at its borders */
  @Maybe() @Num(0, 1000, "mm") fadeMm?: number;
  @Maybe() @SubList(() => Strip, 24) strips?: Strip[];
  /** whole: several colours lie over one another all over, and the beam digs to each */
  @Since(6) @Flag() over?: boolean;
}

/** How a trial card fared with those who looked at it. */
export class TrialVote {
  @Text(400) key!: string;
  @Whole(0, 1000) keep!: number;
  @Whole(0, 1000) drop!: number;
}

/** What can be chosen about the route; null: the engine chooses and says so. */
export class Choices {
  @OrNull() @Id() topId: string | null = null;
  @OrNull() @Id() sealerId: string | null = null;
  @OrNull() @Id() whiteId: string | null = null;
  @OrNull() @Id() clearId: string | null = null;
  /** white under the colours: null lets hiding decide */
  @OrNull() @Flag() undercoat: boolean | null = null;
  /** clear coat: none is allowed */
  @Flag() noClear: boolean = false;
  /** mm engraved; null: what M10 needs, 1.5 mm at least */
  @OrNull() @Num(0.05, 20, "mm") depthMm: number | null = null;
  /** mm between lines; null: from the spot */
  @OrNull() @Num(0.01, 5, "mm") intervalMm: number | null = null;
  /** CIEDE2000; null: the shop's */
  @OrNull() @Num(0.5, 20) tolerance: number | null = null;
  /** a proof piece first; null: when there are three or more */
  @OrNull() @Flag() proof: boolean | null = null;
  /** ready to hand over when touch dry or fully cured; null: by use */
  @OrNull() @OneOf(["touch", "cured"]) handover: "touch" | "cured" | null = null;
  @OneOf(["acetone", "alcohol", "citrus", "chlorinated"]) cleaner: "acetone" | "alcohol" | "citrus" | "chlorinated" =
    "alcohol";
  /** mm that the brush or tool fills at least; null: the tool's default */
  @OrNull() @Num(0.05, 50, "mm") toolMm: number | null = null;
  /** picture polarity as the file will be given to the laser; null: as the route wants it */
  @OrNull() @Flag() inverted: boolean | null = null;
  /** masked while engraving */
  @Flag() mask: boolean = false;
  /** holds chlorine? null: not known */
  @OrNull() @Flag() maskChlorinated: boolean | null = null;
  /** the blank was painted before, with what nobody knows */
  @Flag() oldPaint: boolean = false;
  /** pieces stand in the sun, or warm air above 40 °C is blown at them */
  @Flag() sunOrHotAir: boolean = false;
  /** wet work stands in the laser's own enclosure to dry */
  @Maybe() @Flag() driedInEnclosure?: boolean;
  /** which tape or film masks it; absent: the Shelf's likeliest for the heat and beam */
  @Maybe() @Id() maskId?: string;
  /** finishing moves (K) at the end, in order */
  @Maybe() @TextList(20) finishing?: string[];
  /** picks where makers disagree, `matter:pick`; absent: the shop's */
  @Maybe() @TextList(40) schools?: string[];
  /** how pieces and picture find each other again: id of a jig, or corner, pencil, eye; absent: corner */
  @Maybe() @Text(120) placedBy?: string;
  /** pockets of the jig that stay empty, counted by rows from 1; absent: none */
  @Since(9) @NumList(2000) emptyPockets?: number[];
  /** mirrored as the file goes to the laser; absent: as the route wants it */
  @Maybe() @Flag() mirrored?: boolean;
  /** what the laser program turns over by itself: inverted, mirrored; absent: nothing */
  @Since(1) @TextList(2) inProgram?: string[];
  /** air assist is left on while powder is melted by the laser */
  @Maybe() @Flag() airStaysOn?: boolean;
  /** a clear sheet lies straight on the bed */
  @Maybe() @Flag() onBareBed?: boolean;
  /** trial cards: what is varied, and which were voted out */
  @Maybe() @TextList(20) trialOf?: string[];
  @Maybe() @TextList(60) trialOut?: string[];
  @Since(7) @SubList(() => TrialVote, 100) trialVotes?: TrialVote[];
  /** equal faces round a ball or cylinder */
  @Maybe() @Whole(1, 60) faces?: number;
  /** neighbours that are too near may touch: the later one runs under */
  @Maybe() @Flag() trap?: boolean;
  /** share lost, as this shop has seen it (M15); absent: the route's prior alone */
  @Maybe() @Num(0, 0.95) lossShare?: number;
  /** pieces that share was seen on: it counts as much as they do; absent: eight */
  @Since(1) @Whole(1, 100000) lossOn?: number;
  /** pieces begun, spares with them; absent: enough for the ordered ones to come out good (M15) */
  @Since(1) @Whole(1, 100000) begin?: number;
  /** somebody stays with the laser, eyewear and extraction checked */
  @Flag() attended: boolean = true;
}

/** One change made to the plan by hand, kept as data and laid on again when the brief changes. */
export class PlanEdit {
  @Id() id!: string;
  @OneOf(["add", "remove", "move", "set", "duplicate"]) op!: "add" | "remove" | "move" | "set" | "duplicate";
  /** the step it speaks of; for add, the id of the new one */
  @Id() step!: string;
  /** add, move, duplicate: behind which step; null: first */
  @OrNull() @Id() after: string | null = null;
  /** set: which field; add: the step kind; duplicate: the id of the copy */
  @Text(60) field: string = "";
  /** set: the new value (null: back to the plan's own) */
  @Scalar() value: string | number | boolean | null = null;
}

/** What was changed by hand on a route that the job went by before: there again when it goes by it again. */
export class LeftWay {
  @OneOf(ROUTE_IDS) route!: (typeof ROUTE_IDS)[number];
  @SubList(() => PlanEdit, 5000) edits: PlanEdit[] = [];
}

export class Waiver {
  @Whole(1, 99) rule!: number;
  @Text(120) where: string = "";
  @Text(400) reason!: string;
}

/** The setting found on the test plate. */
export class Plate {
  /** share of rated power, 0-1 */
  @Num(0.001, 1) power!: number;
  /** mm/s */
  @Num(0.1, 50000, "mm/s") speed!: number;
  /** mm */
  @Num(0.01, 5, "mm") interval!: number;
  @Whole(1, 50) passes: number = 1;
  @LocalTime() at!: string;
  @Id() machineId!: string;
  @Text(400) note: string = "";
  /** what it was found on: machine, interval, body, films and their cans; absent: before that was kept, or any work of the machine */
  @Since(1) @Text(2000) work?: string;
}

/** What was seen of one cell of a test plate. */
export class PlateCell {
  @Whole(0, 30) row!: number;
  @Whole(0, 30) col!: number;
  @Maybe() @OneOf(PLATE_READS) top?: PlateRead;
  @Maybe() @OneOf(PLATE_READS) under?: PlateRead;
  /** how deep the mark is, 0 nothing to 10 */
  @Maybe() @Num(0, 10) mark?: number;
  /** mm measured */
  @Maybe() @Num(0, 50, "mm") mm?: number;
}
/** A test plate: rows by power, columns by speed, and what was seen of its cells. */
export class TestPlate {
  @Id() id!: string;
  @LocalTime() at!: string;
  @OneOf(PLATE_QUESTIONS) question!: PlateQuestion;
  @Id() machineId!: string;
  /** what it is made on: machine, interval, body, films and their cans; absent: nothing is planned yet */
  @Maybe() @Text(2000) work?: string;
  /** shares of the panel, top row first; mm/s, left column first */
  @NumList(30) powers!: number[];
  @NumList(30) speeds!: number[];
  /** mm */
  @Num(0.005, 5, "mm") interval!: number;
  @Whole(1, 50) passes: number = 1;
  @Num(1, 100, "mm") cellMm: number = 8;
  @Num(0, 50, "mm") gapMm: number = 2;
  /** what stands in each cell; absent: a square */
  @Since(8) @OneOf(["square", "drawing"]) shows?: "square" | "drawing";
  /** of the piece it is burnt on, mm; absent: not said */
  @Maybe() @Num(1, 5000, "mm") scrapW?: number;
  @Maybe() @Num(1, 5000, "mm") scrapH?: number;
  @SubList(() => PlateCell, 900) cells: PlateCell[] = [];
  @Text(400) note: string = "";
}

/** What the job is sold at. */
export class Price {
  /** a piece, in minor units of the shop’s currency; absent: not said yet */
  @Maybe() @Whole(0, 1e9) eachMinor?: number;
  /** share of the price that is to stay; absent: the shop’s */
  @Maybe() @Num(0, 0.95) margin?: number;
}

export class Order {
  @Text(400) text: string = "";
  @OrNull() @LocalTime() proofSent: string | null = null;
  @OrNull() @LocalTime() proofAccepted: string | null = null;
  @OrNull() @LocalTime() delivered: string | null = null;
}

export class Flaw {
  @Id() id!: string;
  @OneOf(FLAWS) flaw!: (typeof FLAWS)[number];
  @OrNull() @Id() zone: string | null = null;
  @OrNull() @Whole(1, 1e5) piece: number | null = null;
  @Whole(1, 3) severity: number = 1;
  @Text(400) note: string = "";
}

/** How one piece came out. */
export class PieceMark {
  @Whole(1, 1e5) n!: number;
  @OneOf(["good", "mend", "lost"]) is!: "good" | "mend" | "lost";
  @Text(400) note: string = "";
}

export class WrapUp {
  @OrNull() @Whole(0, 1e5) good: number | null = null;
  @OrNull() @Whole(0, 1e5) lost: number | null = null;
  @OrNull() @Whole(1, 5) score: number | null = null;
  @Text(4000) note: string = "";
  @SubList(() => Flaw, 500) flaws: Flaw[] = [];
  /** ids of stored photos */
  @TextList(50) photos: string[] = [];
  @OrNull() @LocalTime() closedAt: string | null = null;
  /** pieces that something was said of; absent: none */
  @Since(7) @SubList(() => PieceMark, 5000) pieces?: PieceMark[];
}

/** A step and the moment it begins at, minutes since 1970. */
export class StepAt {
  @Text(400) step!: string;
  @Moment() at!: number;
}
/** What works of several jobs are done together as. */
export const SHARED_AS = ["oven", "spray", "beam"] as const;
export type SharedAs = (typeof SHARED_AS)[number];
/** A step that is done together with steps of other jobs, as the shop's calendar has found. */
export class Shared {
  @Text(400) step!: string;
  /** the same on all that are done together */
  @Text(1200) id!: string;
  @OneOf(SHARED_AS) as!: SharedAs;
  /** where it comes among them, from 0 */
  @Whole(0, 1000) place!: number;
  /** titles of the other jobs, as they were called then */
  @TextList(100) with: string[] = [];
  /** minutes that it takes more (below 0: less) than alone */
  @Num(-1e6, 1e6, "min") by: number = 0;
}
/** A job's place among the others of the shop. */
export class Queue {
  /** not laid with the others for now */
  @Maybe() @Flag() hold?: boolean;
  /** how much being late weighs; absent: 1 */
  @Maybe() @Num(0.1, 10) weight?: number;
  /** steps that begin then and at no other time */
  @Maybe() @SubList(() => StepAt, 500) pins?: StepAt[];
  /** beginnings that the shop's calendar has found, before which steps don't begin */
  @Maybe() @SubList(() => StepAt, 5000) laid?: StepAt[];
  /** steps that are done together with those of other jobs */
  @Since(8) @SubList(() => Shared, 1000) shared?: Shared[];
  /** steps that are not, by the maker's wish */
  @Since(8) @TextList(1000) apart?: string[];
}

export class Job {
  @Whole(1, 1) version: number = 1;
  @Id() id!: string;
  @Text(120) title!: string;
  @Text(120) client: string = "";
  @Whole(1, 100000) quantity: number = 1;
  @Sub(() => Substrate) substrate: Substrate = new Substrate();
  @TextList(10) @OneOfEach(USES) use: string[] = [];
  /** due, local to the shop */
  @OrNull() @LocalTime() due: string | null = null;
  /** not before, local to the shop */
  @LocalTime() start!: string;
  @OrNull() @Id() machineId: string | null = null;
  @OrNull() @OneOf(ROUTE_IDS) route: (typeof ROUTE_IDS)[number] | null = null;
  @OrNull() @Sub(() => Artwork) artwork: Artwork | null = null;
  @SubList(() => Zone, 200) zones: Zone[] = [];
  /** how the zones are made where no drawing says it; absent: by the drawing, or typed in */
  @Since(4) @Sub(() => Areas) areas?: Areas;
  /** how the names are set that zones have piece by piece; absent: there are none */
  @Since(9) @Sub(() => NameBlock) names?: NameBlock;
  /** what the beam draws over all zones; absent: the zones themselves */
  @Since(4) @Sub(() => Picture) picture?: Picture;
  @Sub(() => Choices) choices: Choices = new Choices();
  @SubList(() => PlanEdit, 5000) edits: PlanEdit[] = [];
  /** routes that were left with changes by hand; absent: none was */
  @Since(2) @SubList(() => LeftWay, 30) left?: LeftWay[];
  @SubList(() => Waiver, 500) waivers: Waiver[] = [];
  /** hazard rules read and accepted for this job */
  @NumList(60) acknowledged: number[] = [];
  @OrNull() @Sub(() => Plate) plate: Plate | null = null;
  @Sub(() => Order) order: Order = new Order();
  @Sub(() => WrapUp) wrapUp: WrapUp = new WrapUp();
  /** units and language in force when the job was begun (L11) */
  @OneOf(["metric", "inch"]) units: "metric" | "inch" = "metric";
  @Text(20) language: string = "en";
  @Text(4000) note: string = "";
  /** who drew the artwork, and by what licence it may be used */
  @Maybe() @Text(200) credit?: string;
  /** what it is made by since its first tap; absent: nothing is tapped yet */
  @Since(1) @Sub(() => Begun) begun?: Begun;
  /** its place among the others; absent: planned as if it were alone */
  @Since(5) @Sub(() => Queue) queue?: Queue;
  /** what it is sold at; absent: nothing is said */
  @Since(7) @Sub(() => Price) price?: Price;
  /** the lot its blanks come from; absent: one that fits */
  @Since(7) @Id() blankLot?: string;
  /** mark that jobs of one order in several sizes share; absent: there is one size */
  @Since(7) @Id() set?: string;
  /** test plates, the newest last; absent: none */
  @Since(7) @SubList(() => TestPlate, 60) tests?: TestPlate[];
  /** ids of lessons that are not told again on this job */
  @Since(7) @TextList(200) lessonsOff?: string[];
}

/** Version 0 called the title `name` and kept the zones inside the artwork. Nothing is dropped. */
function zonesBeside(old: Raw): Raw {
  const { name, ...rest } = old;
  const art = old.artwork ? raw(old.artwork) : null;
  const zones = raws(art?.zones).map((z) => ({
    smallestMm2: null,
    rows: [],
    outline: "",
    perimeterMm: null,
    narrowestMm: null,
    pieces: null,
    holes: null,
    productId: null,
    bare: false,
    name: z.id,
    ...z,
  }));
  return {
    client: "",
    use: [],
    due: null,
    machineId: null,
    route: null,
    edits: [],
    waivers: [],
    acknowledged: [],
    plate: null,
    units: "metric",
    language: "en",
    note: "",
    order: { text: "", proofSent: null, proofAccepted: null, delivered: null },
    wrapUp: { good: null, lost: null, score: null, note: "", flaws: [], photos: [], closedAt: null },
    ...rest,
    choices: {
      topId: null,
      sealerId: null,
      whiteId: null,
      clearId: null,
      undercoat: null,
      noClear: false,
      depthMm: null,
      intervalMm: null,
      tolerance: null,
      proof: null,
      handover: null,
      cleaner: "alcohol",
      toolMm: null,
      inverted: null,
      mask: false,
      maskChlorinated: null,
      oldPaint: false,
      sunOrHotAir: false,
      attended: true,
      ...raw(old.choices),
    },
    title: name ?? rest.title,
    artwork: art ? { name: art.name ?? "", svg: art.svg ?? "", w: art.w, h: art.h } : null,
    zones,
  };
}

export const JOB: RecordKind<Job> = {
  name: "job",
  type: Job,
  version: 1,
  migrations: [
    {
      to: 1,
      name: "job: zones beside the artwork, a title for a name",
      needs: ["id", "name", "quantity", "substrate", "start"],
      of: zonesBeside,
    },
  ],
};

function OneOfEach(values: readonly string[]) {
  return IsIn(values as string[], { each: true, message: `must hold only ${values.join(", ")}` });
}
