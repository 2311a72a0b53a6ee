/** Forms of several fields that more than one page has: a machine, a paint. */
import { BEAM_KINDS } from "../core/catalogue/beams";
import { BEAMS } from "../core/records/ids";
import { MachineForm, PaintForm } from "../core/records/forms";
import { AskButton, AskForm, AskPick, AskText } from "./kit/ask";
import type { Option } from "./kit/pick";

const BEAM_OPTIONS: Option[] = BEAMS.map((b) => ({ value: b, label: BEAM_KINDS[b].name }));

export function AddMachine({ intent, action }: { intent: "add-machine" | "machine-add"; action?: string }) {
  return (
    <AskForm
      form={MachineForm}
      intent={intent}
      action={action}
      start={{ beam: BEAMS[0], watts: "40", name: "" }}
      className="flex flex-wrap items-start gap-3"
    >
      <AskPick name="beam" label="Beam" options={BEAM_OPTIONS} />
      <AskText name="watts" label="Watts" inputMode="decimal" className="w-28" />
      <AskText name="name" label="Name" placeholder="as you call it" />
      <AskButton>Add machine</AskButton>
      <p className="tag basis-full">
        Speeds, bed and spot start as defaults and say so; set your own once it stands here.
      </p>
    </AskForm>
  );
}

export function AddPaint({
  intent,
  finishes,
  start,
  zones,
}: {
  intent: "add" | "add-product";
  finishes: readonly Option[];
  start: { finish: string; colour: string; zone: string };
  /** zones that it may be for; null: nothing is asked */
  zones: readonly Option[] | null;
}) {
  return (
    <AskForm form={PaintForm} intent={intent} start={{ name: "", ...start }}>
      <AskText name="name" label="Name" maxLength={80} />
      <AskPick name="finish" label="Finish" options={finishes} className="max-w-[22rem]" />
      <AskText name="colour" label="Colour" type="color" />
      {zones && <AskPick name="zone" label="For the zone" options={[{ value: "", label: "none" }, ...zones]} />}
      <AskButton>Add paint</AskButton>
      <p className="tag basis-full">
        Its film, hiding and drying start as the finish’s defaults and say so; type your data sheet’s in once it stands
        here.
      </p>
    </AskForm>
  );
}
