/** Every figure of one machine, its safety, and what to look at after it was changed over. */
import { BEAM_KINDS, defaultDepthPerJ } from "../../core/catalogue/beams";
import { wattsAt } from "../../core/models/laser/runtime";
import { BEAMS } from "../../core/records/ids";
import { SETUP_MIN } from "../../core/process/kinds/laser-work";
import { CHANGE_OVER, safe, SAFETY_FACTS, type Machine } from "../../core/records/machine";
import { said } from "../../core/units/said";
import { showLength, showSpeed, type UnitSystem } from "../../core/units/show";
import { ActButton, PickField, TextField, TickField } from "../kit/field";
import { Fold } from "../kit/fold";

const SAFETY_WORDS = {
  enclosed: "Enclosed, its window rated for this beam",
  extraction: "Extraction fitted and used",
};
const triOf = (v: boolean | null): string => (v === null ? "" : String(v));

export function MachineForm({ m, units }: { m: Machine; units: UnitSystem }) {
  const e = { intent: "machine", id: m.id };
  const b = BEAM_KINDS[m.beam];
  const wood = defaultDepthPerJ(m.beam, { id: "hard-maple", family: "wood" });
  return (
    <Fold
      summary={
        <>
          {m.name}{" "}
          <span className="tag">
            {b.name}, {m.watts} W, bed {said(`${m.bedW} × ${m.bedH} mm`, units)}
          </span>
        </>
      }
    >
      <div className="grid fields-40 items-start gap-3">
        <TextField action="/workshop" name="name" label="Name" value={m.name} extra={e} />
        <PickField
          action="/workshop"
          name="beam"
          label="Beam"
          value={m.beam}
          extra={e}
          options={BEAMS.map((x) => ({ value: x, label: BEAM_KINDS[x].name }))}
        />
        <TextField action="/workshop" name="watts" label="Optical watts, rated" value={String(m.watts)} extra={e} />
        <TextField
          action="/workshop"
          name="maxSpeed"
          label="Top speed"
          from={m.maxSpeed === null ? "unknown" : undefined}
          value={m.maxSpeed === null ? "" : `${m.maxSpeed} mm/s`}
          hint={showSpeed(m.maxSpeed)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="rapid"
          label="Travel speed"
          from={m.rapid === null ? "unknown" : undefined}
          value={m.rapid === null ? "" : `${m.rapid} mm/s`}
          extra={e}
        />
        <TextField action="/workshop" name="accel" label="Acceleration, mm/s²" value={String(m.accel)} extra={e} />
        <TextField action="/workshop" name="bedW" label="Bed wide" value={showLength(m.bedW, units)} extra={e} />
        <TextField action="/workshop" name="bedH" label="Bed deep" value={showLength(m.bedH, units)} extra={e} />
        <TextField
          action="/workshop"
          name="setupMin"
          label="Minutes to set it up for another job"
          from={m.setupMin === undefined ? `default: ${SETUP_MIN}` : undefined}
          value={m.setupMin === undefined ? "" : String(m.setupMin)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="spotMm"
          label="Spot, mm"
          from={m.spotMm === null ? `default: ${b.spotMm}` : "measured here"}
          value={m.spotMm === null ? "" : String(m.spotMm)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="overscanMm"
          label="Overrun at line ends, mm"
          from={m.overscanMm === null ? "default: as the speed needs" : undefined}
          value={m.overscanMm === null ? "" : String(m.overscanMm)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="depthPerJ"
          label="Wood, mm per J/mm²"
          from={m.depthPerJ === null ? (wood === null ? "not a beam for wood" : `default: ${wood}`) : "measured here"}
          value={m.depthPerJ === null ? "" : String(m.depthPerJ)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="depths"
          label="Other materials, mm per J/mm², a line each"
          area
          from={m.depths?.length ? "measured here" : "default; “slate 0.02” sets one"}
          value={(m.depths ?? []).map((d) => `${d.substrate} ${d.perJ}`).join("\n")}
          extra={e}
        />
        <TextField action="/workshop" name="jumpMs" label="Jump delay, ms" value={String(m.jumpMs)} extra={e} />
        <TextField
          action="/workshop"
          name="powerPoints"
          label="Panel against watts, a line each"
          area
          value={m.powerPoints.map((p) => `${p.set} ${p.watts}`).join("\n")}
          extra={e}
          hint={
            m.powerPoints.length > 1
              ? `at 50: ${wattsAt(m.powerPoints, 50)?.toFixed(1) ?? "outside the points"} W`
              : "percent or mA as shown, then watts measured; below about 12 % percent is not watts"
          }
        />
        <div className="col-span-full grid fields-54">
          <TickField action="/workshop" name="trimsRows" label="Trims empty row ends" value={m.trimsRows} extra={e} />
          <TickField action="/workshop" name="bothWays" label="Burns both ways" value={m.bothWays} extra={e} />
          <TickField action="/workshop" name="galvo" label="Mirrors, not a gantry" value={m.galvo} extra={e} />
          <TickField action="/workshop" name="airAssist" label="Air assist" value={m.airAssist} extra={e} />
        </div>
        {SAFETY_FACTS.map((fact) => (
          <PickField
            key={fact}
            action="/workshop"
            name={fact}
            label={SAFETY_WORDS[fact]}
            value={triOf(safe(m, fact))}
            extra={e}
            options={[
              { value: "", label: "not said yet" },
              { value: "true", label: "yes" },
              { value: "false", label: "no" },
            ]}
          />
        ))}
        <ActButton action="/workshop" className="link-act self-end" act={{ intent: "machine-remove", id: m.id }}>
          Take {m.name} out
        </ActButton>
      </div>
      <p className="tag mt-1">Eyewear {b.eyewear}.</p>
      {m.changeOver ? (
        <fieldset className="border-t border-line pt-2">
          <legend className="font-semibold">Changed over: look at each before the next burn</legend>
          {CHANGE_OVER.map((x) => (
            <TickField
              key={x}
              action="/workshop"
              name="changeOver"
              label={x}
              value={m.changeOver!.includes(x)}
              extra={{ ...e, intent: "change-over", point: x }}
            />
          ))}
          <ActButton
            action="/workshop"
            className="link-act"
            act={{ intent: "change-over", id: m.id, point: "close", value: "true" }}
          >
            All checked, close the list
          </ActButton>
        </fieldset>
      ) : (
        <ActButton
          action="/workshop"
          className="link-act"
          act={{ intent: "change-over", id: m.id, point: "open", value: "true" }}
        >
          It was changed over (rotary, lens, bed height)…
        </ActButton>
      )}
    </Fold>
  );
}
