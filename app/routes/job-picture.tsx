import type { Route } from "./+types/job-picture";
import { useState } from "react";
import { Link, useSubmit } from "react-router";
import { pictureView } from "../views/picture";
import { readJob } from "./job-data";
import { readPhoto } from "../store/queries";
import { fromBase64 } from "../io/base64";
import { PICTURE_LIMIT, PICTURES, takePicture } from "../ui/taking";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { said } from "../core/units/said";
import { showLength } from "../core/units/show";
import { DOT_MAKERS, SCREEN } from "../core/tone/kernels";
import { LUMINANCE } from "../core/tone/source";
import { makePicture } from "../workers/picture";
import { ActButton, PickField, TextField, TickField } from "../ui/kit/field";
import { DropFile } from "../ui/kit/drop";
import { Fold } from "../ui/kit/fold";
import { Board } from "../ui/picture/board";
import { Tones } from "../ui/picture/tones";
import { Marked } from "../ui/picture/marked";
import { Facts, Heeds } from "../ui/picture/facts";
import { CropForm } from "../ui/picture/crop";
import { Elsewhere, Save } from "../ui/picture/saving";
import { Levels } from "../ui/picture/levels";
import { Samples } from "../ui/picture/samples";
import { smallPicture } from "../ui/picture/mask";
import { ToneLists } from "../ui/picture/tone-lists";
import { AreasFields } from "../ui/picture/areas-fields";

const hundredth = (mm: number): number => Math.round(mm * 100) / 100;
/** longest side of a picture on the screen, pixels */
const SCREEN_PX = 900;

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
  // a little above the middle: faces are there
  const [place, putPlace] = useState({ x: 0.5, y: 0.4 });
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
  const small = picture && !run ? smallPicture(picture) : null;
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
        {picture && !run && !d.lostOriginal && small && (
          <img src={small} alt={`${picture.name}, small`} className="max-h-64 self-start border border-line" />
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
            <Board
              run={run}
              job={job}
              picture={picture}
              units={units}
              px={SCREEN_PX}
              place={place}
              onPlace={putPlace}
            />
            <Facts d={d} work={d.work} run={run} />
            {!d.work.dug && (
              <Fold summary="Side by side on this picture">
                {() => <Samples run={run} work={d.work} place={place} units={units} />}
              </Fold>
            )}
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
            <ToneLists lists={d.toneLists} any={d.tone.length > 0} />
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
              value={picture.dig ? "dig" : picture.render}
              extra={{ intent: "picture-set" }}
              options={[
                ...DOT_MAKERS.map((m) => ({ value: m.id, label: m.name })),
                { value: "grey", label: "Power, no dots" },
                { value: "dig", label: "Colours of a stack, dug by power" },
              ]}
            />
            <p className="text-muted">
              {picture.dig
                ? "Each place is dug to the colour of the stack that comes nearest, by its own power."
                : picture.render === "grey"
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
            {picture.dig && (
              <>
                <TickField
                  name="plain"
                  label="Flat colours, neighbours not mixed"
                  hint="else levels side by side mix in the eye, and tones between them are seen"
                  value={picture.plain ?? false}
                  extra={{ intent: "picture-set" }}
                />
                {d.work && run && <Levels work={d.work} run={run} />}
              </>
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
          {run && (
            <Fold summary="Changed in another program?">
              <Elsewhere run={run} d={d} work={d.work} />
            </Fold>
          )}
          <div className="mt-4 flex flex-wrap gap-3 border-t border-line pt-4">
            {run && <Save run={run} d={d} work={d.work} pass={d.pass} />}
            <ActButton act={{ intent: "picture-away" }}>Leave the picture away</ActButton>
          </div>
        </section>
      )}
    </main>
  );
}
