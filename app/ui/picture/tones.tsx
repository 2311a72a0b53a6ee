/** The list of tone steps: each with its fields, switched off to compare, moved up and down, taken away. */
import { ArrowDown, ArrowUp, X } from "lucide-react";
import type { ToneStep } from "../../core/tone/steps";
import { TONE_KINDS, type ToneKind } from "../../core/tone/steps";
import { TONE_IDS } from "../../core/records/picture";
import { showLength, type UnitSystem } from "../../core/units/show";
import { ActButton, PostForm, TextField, TickField } from "../kit/field";
import { AskPickPlain } from "../kit/plain-pick";
import { Curve } from "./curve";
import { Marked } from "./marked";

type FieldOf = { name: string; label: string; unit: "%" | "share" | "mm" | "" };
const FIELDS: Record<ToneKind, FieldOf[]> = {
  levels: [
    { name: "black", label: "Black from", unit: "share" },
    { name: "white", label: "White from", unit: "share" },
    { name: "gamma", label: "Middle (1: even)", unit: "" },
  ],
  curve: [],
  light: [
    { name: "shadows", label: "Shadows, −100 to 100", unit: "" },
    { name: "highlights", label: "Lights, −100 to 100", unit: "" },
    { name: "radiusMm", label: "Within", unit: "mm" },
  ],
  "local-contrast": [
    { name: "amount", label: "How much", unit: "%" },
    { name: "radiusMm", label: "Within", unit: "mm" },
  ],
  sharpen: [
    { name: "amount", label: "How much", unit: "%" },
    { name: "radiusMm", label: "Within", unit: "mm" },
  ],
  brighten: [
    { name: "amount", label: "How much", unit: "%" },
    { name: "featherMm", label: "Softly over", unit: "mm" },
  ],
  invert: [],
  threshold: [{ name: "at", label: "White from", unit: "share" }],
  clean: [{ name: "within", label: "As near to white as", unit: "share" }],
};

function valueOf(s: ToneStep, f: FieldOf, units: UnitSystem): string {
  const v = (s as unknown as Record<string, number>)[f.name];
  if (f.unit === "mm") return showLength(v, units);
  if (f.unit === "share") return `${Math.round(v * 1000) / 10} %`;
  return f.unit === "%" ? `${v} %` : String(v);
}

export function Tones({ tone, units }: { tone: ToneStep[]; units: UnitSystem }) {
  return (
    <>
      {tone.length === 0 && (
        <p className="text-muted">
          None: the picture’s own tones. Each step works on what the one above it leaves, always from the original.
        </p>
      )}
      <ol className="divide-y divide-line">
        {tone.map((s, i) => {
          const { name, does } = TONE_KINDS[s.do];
          const step = String(i);
          return (
            <li key={`${i}${s.do}`} data-tone={s.do} className="flex flex-col gap-2 py-3">
              <div className="flex flex-wrap items-center gap-2">
                <span className="tag num">{i + 1}</span>
                <strong className={s.off ? "text-muted line-through" : ""}>{name}</strong>
                <span className="ml-auto flex gap-1">
                  <ActButton
                    className="btn btn-quiet"
                    label={`${name} earlier`}
                    disabled={i === 0}
                    act={{ intent: "tone-move", step, to: String(i - 1) }}
                  >
                    <ArrowUp size={16} aria-hidden="true" />
                  </ActButton>
                  <ActButton
                    className="btn btn-quiet"
                    label={`${name} later`}
                    disabled={i === tone.length - 1}
                    act={{ intent: "tone-move", step, to: String(i + 1) }}
                  >
                    <ArrowDown size={16} aria-hidden="true" />
                  </ActButton>
                  <ActButton
                    className="btn btn-quiet"
                    label={`Take ${name.toLowerCase()} away`}
                    act={{ intent: "tone-remove", step, to: "" }}
                  >
                    <X size={16} aria-hidden="true" />
                  </ActButton>
                </span>
              </div>
              <p className="text-small text-muted">{does}</p>
              {FIELDS[s.do].length > 0 && (
                <div className="grid fields-30 gap-3">
                  {FIELDS[s.do].map((f) => (
                    <TextField
                      key={f.name}
                      name={f.name}
                      label={f.label}
                      value={valueOf(s, f, units)}
                      extra={{ intent: "tone-set", step }}
                    />
                  ))}
                </div>
              )}
              {s.do === "curve" && <Curve points={s.points} step={step} />}
              {s.do === "brighten" && (
                <Marked ring={s.region.flat()} step={step} what="the part that is made lighter" />
              )}
              <TickField
                name="off"
                label="Passed over, to compare"
                value={s.off ?? false}
                extra={{ intent: "tone-set", step }}
              />
            </li>
          );
        })}
      </ol>
      <PostForm intent="tone-add" className="flex flex-wrap items-end gap-2">
        <AskPickPlain
          name="kind"
          label="A further step"
          options={TONE_IDS.map((id) => ({ value: id, label: TONE_KINDS[id].name }))}
        />
        <button className="btn">Add it</button>
      </PostForm>
    </>
  );
}
