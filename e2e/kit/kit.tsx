/** Every control of the kit in each of its states: empty, filled, busy, wrong, disabled, with long text. */
import "reflect-metadata";
import { StrictMode, useState } from "react";
import { createRoot } from "react-dom/client";
import { createMemoryRouter, RouterProvider } from "react-router";
import "./kit.css";
import { FlawForm } from "../../app/core/records/forms";
import type { Outcome } from "../../app/core/records/outcome";
import { AskButton, AskForm, AskPick, AskText } from "../../app/ui/kit/ask";
import { Empty, Head, Mark, Share, Swatch } from "../../app/ui/kit/bits";
import { ActButton, PickField, TextField, TickField } from "../../app/ui/kit/field";
import { Fold } from "../../app/ui/kit/fold";
import { Pick, Tick } from "../../app/ui/kit/pick";
import { Table, type Column } from "../../app/ui/kit/table";
import { WhenField } from "../../app/ui/kit/when-field";

const LONG = "Meadow markers for the long bed behind the second greenhouse, as ordered again in the spring";
const OPTIONS = [
  { value: "", label: "not chosen" },
  { value: "maple", label: "Hard maple" },
  { value: "tile", label: "Glazed tile" },
  { value: "long", label: LONG },
];
interface Piece {
  id: string;
  name: string;
  n: number;
}
const PIECES: Piece[] = [
  { id: "a", name: "Row tokens", n: 40 },
  { id: "b", name: LONG, n: 2 },
  { id: "c", name: "Door sign", n: 1 },
];
const COLUMNS: Column<Piece>[] = [
  { id: "name", name: "Job", heads: true, by: (p) => p.name, find: (p) => p.name, cell: (p) => p.name },
  { id: "n", name: "Pieces", className: "num", by: (p) => p.n, cell: (p) => p.n },
];
const MANY: Piece[] = Array.from({ length: 4000 }, (_, i) => ({
  id: `p${i}`,
  name: `Piece ${i + 1}`,
  n: (i * 37) % 101,
}));

function Section({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <section aria-label={name} className="border-t border-line py-4">
      <h2 className="mb-2">{name}</h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] items-start gap-4">{children}</div>
    </section>
  );
}

function Kit() {
  const [picked, pick] = useState("maple");
  const [ticked, tick] = useState(true);
  return (
    <main className="mx-auto max-w-[1240px] p-5">
      <h1>Kit</h1>
      <Section name="Buttons">
        <p className="flex flex-wrap gap-2">
          <button className="btn btn-main">Begin the job</button>
          <button className="btn">Add paint</button>
          <button className="btn" disabled>
            Not now
          </button>
          <button className="btn btn-quiet">Leave it</button>
          <button className="link-act">Remove</button>
        </p>
        <ActButton act={{ intent: "wrong" }}>Refused</ActButton>
        <ActButton act={{ intent: "busy" }}>Takes long</ActButton>
        <p>
          <button className="btn whitespace-normal">{LONG}</button>
        </p>
      </Section>
      <Section name="Text">
        <TextField name="fine" label="Empty" value="" placeholder="such as 120 mm" />
        <TextField name="fine" label="Filled" value="120 mm" from="default" hint="what it is for" />
        <TextField name="fine" label="Long text" value={LONG} />
        <TextField name="fine" label="In lines" value={`${LONG}\n${LONG}`} area />
        <TextField name="wrong" label="Wrong" value="120 mm" />
        <TextField name="busy" label="Being stored" value="120 mm" />
        <TextField name="fine" label="A colour" value="#a8235a" colour />
      </Section>
      <Section name="Dates and times">
        <WhenField name="fine" label="A moment" kind="moment" zone="UTC" value="2027-01-15T12:00" />
        <WhenField name="fine" label="No moment yet" kind="moment" zone="UTC" value="" />
        <WhenField name="fine" label="A day" kind="day" zone="UTC" value="2027-01-15" />
        <WhenField name="fine" label="A time of day" kind="time" zone="UTC" value="09:00" />
      </Section>
      <Section name="Lists and ticks">
        <PickField name="fine" label="Chosen" value="tile" options={OPTIONS} />
        <PickField name="fine" label="Not chosen" value="" options={OPTIONS} />
        <PickField name="fine" label="Long" value="long" options={OPTIONS} />
        <PickField name="wrong" label="Refused" value="tile" options={OPTIONS} />
        <Pick label="Held here" value={picked} options={OPTIONS} onChange={pick} />
        <Pick label="Cannot be changed" value="maple" options={OPTIONS} onChange={() => {}} disabled />
        <TickField name="fine" label="Ticked" value hint="what it is for" />
        <TickField name="fine" label={LONG} value={false} from="default" />
        <p className="flex items-center gap-2">
          <Tick label="A tick by itself" checked={ticked} onChange={tick} />
          <Tick label="A tick that cannot be changed" checked={false} onChange={() => {}} disabled />
        </p>
      </Section>
      <Section name="A form of several fields">
        <AskForm
          form={FlawForm}
          intent="fine"
          start={{ flaw: "bleed", zone: "", piece: "", severity: "1", note: "" }}
          className="col-span-full flex flex-wrap items-start gap-3"
        >
          <AskPick name="zone" label="Zone" options={OPTIONS} />
          <AskText name="piece" label="Piece" inputMode="numeric" className="w-24" />
          <AskText name="note" label="Note" hint="kept with the job" />
          <AskButton>Keep it</AskButton>
        </AskForm>
      </Section>
      <Section name="Small things">
        <p className="flex flex-wrap gap-4">
          {(["never", "stop", "hazard", "risk", "advice"] as const).map((s) => (
            <Mark key={s} severity={s} />
          ))}
        </p>
        <p className="flex gap-3">
          <Swatch colour="#a8235a" label="Beet" /> <Swatch colour="#f3b61f" label="Marigold" />
        </p>
        <Share of={0.4} label="Measuring" />
        <Fold summary="Folded away">What stands in it.</Fold>
        <Fold summary={LONG} open>
          What stands in it.
        </Fold>
        <p className="hatch p-2">A wait, hatched</p>
      </Section>
      <Section name="Nothing here yet">
        <Empty title="No jobs yet">
          <p>What the place is for, and the first thing to do.</p>
          <button className="btn">New job</button>
        </Empty>
      </Section>
      <section aria-label="Tables" className="border-t border-line py-4">
        <Head>Tables</Head>
        <Table label="Three jobs" rows={PIECES} columns={COLUMNS} rowId={(p) => p.id} />
        <Table
          label="None found"
          rows={PIECES}
          columns={COLUMNS}
          rowId={(p) => p.id}
          find="walnut"
          none="No job of that name."
        />
        <Table label="Very many" rows={MANY} columns={COLUMNS} rowId={(p) => p.id} />
      </section>
    </main>
  );
}

/** What each field is answered with is told by its name. */
async function action({ request }: { request: Request }): Promise<Outcome> {
  const form = await request.formData();
  const how = String(form.get("field") ?? form.get("intent"));
  if (how === "busy") await new Promise(() => {});
  return how === "wrong" ? { error: "“none” is not a length such as 120 mm or 5 3/8 in." } : { done: "stored" };
}

const theme = new URLSearchParams(location.search).get("theme");
if (theme) document.documentElement.dataset.theme = theme;
createRoot(document.getElementById("kit")!).render(
  <StrictMode>
    <RouterProvider
      router={createMemoryRouter([
        { path: "/", element: <Kit />, action, loader: () => null, HydrateFallback: () => null },
      ])}
    />
  </StrictMode>,
);
