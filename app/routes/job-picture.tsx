import type { Route } from "./+types/job-picture";
import { useState, useSyncExternalStore } from "react";
import { Link, useSubmit } from "react-router";
import { pictureView } from "../views/picture";
import { readJob } from "./job-data";
import { readPhoto } from "../store/queries";
import { fromBase64 } from "../io/base64";
import { PICTURE_LIMIT, PICTURES, takePicture } from "../ui/taking";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { said } from "../core/units/said";
import { showLength, showMinutes } from "../core/units/show";
import { DOT_MAKERS, SCREEN } from "../core/tone/kernels";
import { LUMINANCE } from "../core/tone/source";
import { makePicture, type PictureRun } from "../workers/picture";
import { BINS } from "../core/tone/stats";
import { Bar, BarChart, ResponsiveContainer, XAxis } from "recharts";
import { ActButton, PickField, TextField, TickField } from "../ui/kit/field";
import { DropFile } from "../ui/kit/drop";
import { Fold } from "../ui/kit/fold";
import { saveFile } from "../ui/files";
import { Board } from "../ui/picture/board";
import { Tones } from "../ui/picture/tones";
import { boxOf, Marked } from "../ui/picture/marked";
import { AreasFields } from "../ui/picture/areas-fields";

const hundredth = (mm: number): number => Math.round(mm * 100) / 100;
/** longest side of a picture on the screen, pixels */
const SCREEN_PX = 900;
/** share of pixels cut off, and of dark dots in the watched part, beyond which it is told */
const CLIPPED = 0.02;
const [LEAST_DARK, MOST_DARK] = [0.15, 0.85];

/** the original that was read last: a change of its tones does not read it again */
let kept: { id: string; bytes: Uint8Array<ArrayBuffer> } | null = null;
async function originalOf(id: string): Promise<Uint8Array<ArrayBuffer> | null> {
  if (kept?.id === id) return kept.bytes;
  const photo = await readPhoto(id);
  if (!photo) return null;
  kept = { id, bytes: fromBase64(photo.data) };
  return kept.bytes;
}

export async function clientLoader({ params, request }: Route.ClientLoaderArgs) {
  const view = pictureView((await readJob(params.id)).plan);
  const { picture, works } = view;
  const bytes = picture && (await originalOf(picture.photo));
  // what one setting can't open goes in passes of their own, a file each
  const pass = Math.min(
    works.length - 1,
    Math.max(0, Number(new URL(request.url).searchParams.get("pass") ?? 1) - 1 || 0),
  );
  const work = works[pass];
  const run =
    picture && bytes && work
      ? makePicture(picture.photo, bytes, { work, watched: picture.watched?.ring ?? null, px: SCREEN_PX })
      : null;
  return { ...view, pass, work, run, lostOriginal: picture !== null && !bytes };
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

export default function PicturePage({ loaderData: d }: Route.ComponentProps) {
  const submit = useSubmit();
  const [refused, refuse] = useState<string | null>(null);
  const [taking, setTaking] = useState(false);
  const take = async (file: File): Promise<void> => {
    setTaking(true);
    refuse(null);
    try {
      await submit(await takePicture(file), { method: "post" });
    } catch (e) {
      refuse(`“${file.name}” was not taken in. ${(e as Error).message}`);
    }
    setTaking(false);
  };
  const { picture, job, units, run } = d;
  const drop = (
    <>
      <DropFile
        label="Picture file"
        what="a PNG, JPEG or WebP picture"
        kinds={PICTURES}
        limit={PICTURE_LIMIT}
        busy={taking}
        onFile={(file) => void take(file)}
        onRefused={refuse}
      >
        {(choose) => (
          <>
            <p>
              {picture ? (
                <>
                  In use: <strong className="break-all">{picture.name}</strong>, {picture.pxW} × {picture.pxH} pixels
                </>
              ) : (
                "Drop a photo or a logo here: PNG, JPEG or WebP."
              )}
            </p>
            <button type="button" className={picture ? "btn" : "btn btn-main"} onClick={choose}>
              {picture ? "Take another picture" : "Choose a picture"}
            </button>
            <p className="tag">
              It is kept as it came, without its notes on place and camera, and never leaves this machine.
            </p>
          </>
        )}
      </DropFile>
      <div aria-live="polite">
        {taking && <p role="status">Taking it in…</p>}
        {refused && (
          <p role="alert" className="text-wrong">
            {refused}
          </p>
        )}
      </div>
    </>
  );
  return (
    <main
      id="main"
      data-view="picture"
      className="mx-auto grid w-full max-w-page gap-8 px-5 py-5 lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]"
    >
      <title>{`${job.title}: picture · Rich Layer`}</title>
      <section aria-labelledby="p1" className="flex min-w-0 flex-col gap-4">
        <h2 id="p1">The picture on its piece</h2>
        {!picture && (
          <>
            <p className="max-w-prose">
              The beam draws a photo or a logo in dots over whatever colour lies beneath: one all over, bands, or the
              areas of a drawing. Without a picture it works on the areas of the drawing themselves.
            </p>
            {drop}
          </>
        )}
        {picture && d.lostOriginal && (
          <p role="alert" className="text-wrong">
            The original of “{picture.name}” is not in this shop any more. Take it in again.
          </p>
        )}
        {picture && !run && !d.lostOriginal && (
          <p>
            {d.drawsNone ? (
              <>
                “{d.way}” fills areas one by one and draws no picture.{" "}
                <Link to="../route" relative="path">
                  Choose a way that does
                </Link>
                , or leave the picture away.
              </>
            ) : (
              <>
                How it will look depends on the way:{" "}
                <Link to="../route" relative="path">
                  choose one
                </Link>
                , and it is made in your own paints.
              </>
            )}
          </p>
        )}
        {picture && run && (
          <>
            {d.works.length > 1 && (
              <nav aria-label="Passes" className="flex flex-wrap items-center gap-2">
                {d.works.length} passes draw it, each over its own areas and with a file of its own:
                {d.works.map((w, i) => (
                  <Link
                    key={w.step}
                    to={`?pass=${i + 1}`}
                    className="btn"
                    aria-current={i === d.pass ? "page" : undefined}
                  >
                    {w.areas.map((a) => a.name).join(", ")}
                  </Link>
                ))}
              </nav>
            )}
            <Board run={run} job={job} picture={picture} units={units} />
            <Facts d={d} run={run} />
          </>
        )}
        {picture && drop}
      </section>
      {picture && (
        <section aria-label="How it is made" className="min-w-0">
          <Heeds d={d} run={run} />
          <Fold summary="Where it lies" open className="border-t border-line pt-1">
            <div className="grid fields-30 gap-3">
              <TextField name="w" label="Wide" value={showLength(picture.w, units)} extra={{ intent: "picture-set" }} />
              <TextField name="h" label="High" value={showLength(picture.h, units)} extra={{ intent: "picture-set" }} />
              <TextField
                name="overrun"
                label="Over each edge"
                value={showLength(Math.round(d.over!.least * 100) / 100, units)}
                hint="or % of the width"
                extra={{ intent: "picture-set" }}
              />
              <TextField
                name="dx"
                label="Right of the middle"
                value={showLength(picture.dx ?? 0, units)}
                extra={{ intent: "picture-set" }}
              />
              <TextField
                name="dy"
                label="Below the middle"
                value={showLength(picture.dy ?? 0, units)}
                extra={{ intent: "picture-set" }}
              />
              <PickField
                name="fit"
                label="In its frame"
                value={picture.fit}
                extra={{ intent: "picture-set" }}
                options={[
                  { value: "cover", label: "covers it, the rest is cut off" },
                  { value: "contain", label: "whole, with room beside it" },
                  { value: "stretch", label: "stretched to fit" },
                ]}
              />
            </div>
            <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
              <ActButton act={{ intent: "picture-set", field: "quarters", value: String((picture.quarters ?? 0) + 1) }}>
                A quarter turn
              </ActButton>
              <TickField
                name="flip"
                label="Left for right"
                value={picture.flip ?? false}
                extra={{ intent: "picture-set" }}
              />
            </div>
            <p>
              {d.over!.least > 0
                ? said(
                    `It runs ${hundredth(d.over!.least)} mm over (${(d.over!.share * 100).toFixed(1)} %): a piece that lies ` +
                      `${hundredth(d.over!.least)} mm off or ${d.over!.degrees.toFixed(2)}° turned shows no bare rim.`,
                    units,
                  )
                : "It ends within the piece: a rim stays as it is."}{" "}
              {d.lost!.share > 0.005 && `${Math.round(d.lost!.share * 100)} % of the picture is cut off.`}
            </p>
            <Fold summary="Only a part of it">
              <CropForm picture={picture} />
            </Fold>
          </Fold>
          <Fold
            summary={`Tones${d.tone.length ? `: ${d.tone.length} ${d.tone.length === 1 ? "step" : "steps"}` : ""}`}
            open
          >
            <Tones tone={d.tone} units={units} />
            <TextField
              name="mix"
              label="Red, green and blue in its grey, %"
              value={(picture.mix ?? LUMINANCE).map((x) => Math.round(x * 100)).join(", ")}
              hint={picture.mix ? "empty: as the eye weighs them" : "as the eye weighs them"}
              extra={{ intent: "picture-set" }}
            />
            <TickField
              name="unlaid"
              label="As the file has them, cut off where the paints end"
              hint={
                d.reach
                  ? `Else black becomes the darkest your paints show (lightness ${d.reach.dark} of 100), ` +
                    `white the lightest (${d.reach.light}).`
                  : undefined
              }
              value={picture.unlaid ?? false}
              extra={{ intent: "picture-set" }}
            />
          </Fold>
          <Fold summary="Dots or power" open>
            <PickField
              name="render"
              label="Tones are made by"
              value={picture.render}
              extra={{ intent: "picture-set" }}
              options={[
                ...DOT_MAKERS.map((m) => ({ value: m.id, label: m.name })),
                { value: "grey", label: "Power, no dots" },
              ]}
            />
            <p className="text-muted">
              {picture.render === "grey"
                ? `Each tone gets its own power.${d.held === null ? "" : ` This stack holds ${d.held} tones that can be told apart.`}`
                : DOT_MAKERS.find((m) => m.id === picture.render)?.says}
            </p>
            {DOT_MAKERS.find((m) => m.id === picture.render)?.screens && (
              <div className="grid fields-30 gap-3">
                <TextField
                  name="perCm"
                  label="Lines a cm"
                  value={String(picture.perCm ?? SCREEN.perCm)}
                  extra={{ intent: "picture-set" }}
                />
                <TextField
                  name="angle"
                  label="At an angle of"
                  value={`${picture.angle ?? SCREEN.angle}°`}
                  extra={{ intent: "picture-set" }}
                />
              </div>
            )}
            {DOT_MAKERS.find((m) => m.id === picture.render)?.diffuses && (
              <TickField
                name="serpentine"
                label="Rows decided there and back"
                hint="fewer worms; the beam runs as before"
                value={picture.serpentine ?? false}
                extra={{ intent: "picture-set" }}
              />
            )}
            {picture.render !== "grey" && (
              <TickField
                name="plain"
                label="Dots not corrected for the spot"
                hint={
                  d.works[0]?.spotMm
                    ? said(
                        `A spot of ${d.works[0].spotMm} mm leaves more open than is drawn; that is reckoned back.`,
                        units,
                      )
                    : undefined
                }
                value={picture.plain ?? false}
                extra={{ intent: "picture-set" }}
              />
            )}
          </Fold>
          <Fold summary="Colours beneath" open>
            <AreasFields job={job} units={units} thin={d.thin} along={d.along} />
          </Fold>
          <Fold summary="Watch a part, a face say">
            <Marked ring={picture.watched?.ring ?? []} step="" what="the part that is watched" />
          </Fold>
          <div className="mt-4 flex flex-wrap gap-3 border-t border-line pt-4">
            {run && <Save run={run} d={d} />}
            <ActButton act={{ intent: "picture-away" }}>Leave the picture away</ActButton>
          </div>
        </section>
      )}
    </main>
  );
}

type View = Awaited<ReturnType<typeof clientLoader>>;
const useMade = (run: PictureRun) => useSyncExternalStore(run.subscribe, run.get, run.get);

/** Size, interval, time, and how its tones lie. */
function Facts({ d, run }: { d: View; run: PictureRun }) {
  const { made, share } = useMade(run);
  const { work } = d;
  if (!made || share !== null) return null;
  return (
    <div className="grid gap-4 sm:grid-cols-2" data-made={`${made.w} ${made.h}`}>
      <div>
        <p>
          <span className="num">{made.w}</span> × <span className="num">{made.h}</span> pixels, one every{" "}
          {said(`${work.recipe.intervalMm} mm`, d.units)}; <span className="num">{Math.round(made.burnt * 100)} %</span>{" "}
          of it is burnt.
        </p>
        <p>
          {d.seconds === null || d.halvedSeconds === null
            ? "How long the beam takes is not known: no machine is chosen."
            : `${showMinutes(d.seconds / 60)} of laser a piece; with lines twice as far apart ${showMinutes(d.halvedSeconds / 60)}.`}
        </p>
      </div>
      <div>
        <div className="h-20" aria-hidden="true">
          <ResponsiveContainer>
            <BarChart
              data={made.stats.histogram.map((n, i) => ({ i, n: Math.sqrt(n) }))}
              barCategoryGap={0}
              accessibilityLayer={false}
            >
              <XAxis dataKey="i" hide />
              <Bar dataKey="n" fill="var(--color-ink)" isAnimationActive={false} />
            </BarChart>
          </ResponsiveContainer>
        </div>
        <p className="tag">
          From black to white: {(made.stats.black * 100).toFixed(1)} % quite black,{" "}
          {(made.stats.white * 100).toFixed(1)} % quite white; half of it is darker than {median(made.stats.histogram)}{" "}
          of 100.
        </p>
      </div>
    </div>
  );
}
/** screen value in per cent that half of the pixels lie under */
function median(histogram: readonly number[]): number {
  let sum = 0;
  const at = histogram.findIndex((n) => (sum += n) >= 0.5);
  return Math.round((100 * (at + 0.5)) / BINS);
}

const NO_RUN = { subscribe: () => () => undefined, get: () => null };
function Heeds({ d, run }: { d: View; run: PictureRun | null }) {
  const state = useSyncExternalStore(
    run?.subscribe ?? NO_RUN.subscribe,
    run ? run.get : NO_RUN.get,
    run ? run.get : NO_RUN.get,
  );
  const stats = state?.share === null ? state.made?.stats : undefined;
  const list = [...d.heeds];
  if (stats) {
    const clip = (share: number, what: string): void => {
      if (share > CLIPPED)
        list.push({
          say: `${(share * 100).toFixed(1)} % of it is quite ${what}: detail there is gone. Up to ${CLIPPED * 100} % is usual.`,
          mend: null,
        });
    };
    clip(stats.black, "black");
    clip(stats.white, "white");
    const dark = stats.watchedDark;
    if (dark !== null && (dark < LEAST_DARK || dark > MOST_DARK)) {
      const box = boxOf(d.picture!.watched!.ring);
      list.push({
        say:
          `The marked part is ${Math.round(dark * 100)} % dark; a face reads between ${LEAST_DARK * 100} and ${MOST_DARK * 100} %. ` +
          `A step that ${dark > MOST_DARK ? "lightens" : "darkens"} it${box ? ` (${box.join(", ")} %)` : ""} mends that.`,
        mend: { label: "Add such a step", act: { intent: "tone-add", kind: "brighten" } },
      });
    }
  }
  if (!list.length) return null;
  return (
    <ul className="mb-4 flex flex-col gap-3 border-l-3 border-waiting pl-4" aria-label="To heed">
      {list.map((x) => (
        <li key={x.say} data-heed>
          {x.say}{" "}
          {x.mend && (
            <ActButton className="link-act" act={x.mend.act}>
              {x.mend.label}
            </ActButton>
          )}
        </li>
      ))}
    </ul>
  );
}

function CropForm({ picture }: { picture: NonNullable<View["picture"]> }) {
  const submit = useSubmit();
  const c = picture.crop ?? { x: 0, y: 0, w: 1, h: 1 };
  return (
    <form
      className="grid grid-cols-4 items-end gap-2"
      aria-label="Part of the picture"
      key={JSON.stringify(c)}
      onSubmit={(e) => {
        e.preventDefault();
        const v = new FormData(e.currentTarget);
        v.set("intent", "picture-crop");
        void submit(v, { method: "post" });
      }}
    >
      {(["x", "y", "w", "h"] as const).map((k) => (
        <label key={k} className="flex flex-col gap-0.5 text-small text-muted">
          {{ x: "From left, %", y: "From top, %", w: "Wide, %", h: "High, %" }[k]}
          <input
            name={k}
            className="field-in text-ink"
            inputMode="decimal"
            defaultValue={Math.round(c[k] * 1000) / 10}
          />
        </label>
      ))}
      <button className="btn col-span-4 justify-self-start">Take this part</button>
    </form>
  );
}

/** The file, named so that it is found again. */
function Save({ run, d }: { run: PictureRun; d: View }) {
  const { made, share } = useMade(run);
  const { work } = d;
  const slug = d.job.title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  const { widthMm, heightMm, intervalMm, render } = work.recipe;
  const which = d.works.length > 1 ? `_pass${d.pass + 1}` : "";
  const size = `${Math.round(widthMm)}x${Math.round(heightMm)}mm_${intervalMm}mm`;
  const name = `${slug || "picture"}_${size}_${render}${which}.png`;
  return (
    <div className="flex flex-col gap-1">
      <button
        type="button"
        className="btn btn-main self-start"
        disabled={!made || share !== null}
        onClick={() => void run.save().then((png) => png && saveFile(name, png, "image/png"))}
      >
        Save the PNG for the laser
      </button>
      <p className="tag">
        {name}. Black is burnt. In the laser’s program leave alone: turning over, mirroring, tone, dots; say{" "}
        {said(`${work.recipe.intervalMm} mm`, d.units)} between lines and the size as it is.
        {work.recipe.mirror && " It is mirrored already."}
      </p>
    </div>
  );
}
