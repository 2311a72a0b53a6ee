/** The palette and the list of keys; fetched when one of them is first opened. */
import { useState } from "react";
import { Command } from "cmdk";
import { Dialog } from "radix-ui";

/** rows that the palette shows at once */
const MOST = 40;

const KEYS: [string, string][] = [
  ["Ctrl or ⌘ K", "Go to a place, a job or an act"],
  ["Ctrl or ⌘ Z", "Undo"],
  ["Ctrl or ⌘ Shift Z", "Do again"],
  ["[  and  ]", "Layers: the step before, the step after"],
  ["Space", "Bench: piece done"],
  ["Z", "Bench: take back the last tap"],
  ["N", "Bench: write a note, or one in a tap"],
  ["C", "Bench: take a photo"],
  ["?", "This list"],
];

export default function Overlays({
  palette,
  keys,
  onPalette,
  onKeys,
  go,
  places,
  jobs,
}: {
  palette: boolean;
  keys: boolean;
  onPalette(open: boolean): void;
  onKeys(open: boolean): void;
  go(to: string): void;
  places: { to: string; name: string }[];
  jobs: { id: string; title: string }[];
}) {
  const [typed, setTyped] = useState("");
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const every = [
    ...places.map((p) => ({ key: p.to, name: p.name, run: () => go(p.to) })),
    { key: "new", name: "New job", run: () => go("/jobs/new") },
    ...jobs.map((j) => ({ key: j.id, name: `Job: ${j.title}`, run: () => go(`/jobs/${j.id}`) })),
    ...jobs.map((j) => ({ key: `${j.id}-b`, name: `Bench: ${j.title}`, run: () => go(`/jobs/${j.id}/bench`) })),
  ];
  const all = every.filter((x) => words.every((w) => x.name.toLowerCase().includes(w)));
  const found = all.slice(0, MOST);
  return (
    <>
      <Dialog.Root open={palette} onOpenChange={onPalette}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
          <Dialog.Content
            aria-describedby={undefined}
            className={
              "fixed left-1/2 top-[12dvh] z-50 w-150 max-w-[94vw] -translate-x-1/2 rounded-lg border border-strong " +
              "bg-lifted p-3 shadow-2xl"
            }
          >
            <Dialog.Title className="sr-only">Go to a place, a job or an act</Dialog.Title>
            <Command label="Go to" shouldFilter={false}>
              <Command.Input
                aria-label="Go to"
                placeholder="Place, job or act"
                className="field-in"
                value={typed}
                onValueChange={setTyped}
              />
              <Command.List className="mt-2 max-h-[50dvh] overflow-auto">
                <Command.Empty className="p-3 text-muted">Nothing of that name.</Command.Empty>
                {found.map((x) => (
                  <Command.Item
                    key={x.key}
                    value={x.key}
                    onSelect={x.run}
                    className="min-h-11 cursor-pointer rounded px-3 py-2 data-[selected=true]:bg-act data-[selected=true]:text-on-act"
                  >
                    {x.name}
                  </Command.Item>
                ))}
                {all.length > found.length && typed && (
                  <p className="p-3 text-muted">{all.length - found.length} more; type on to narrow them down.</p>
                )}
              </Command.List>
            </Command>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
      <Dialog.Root open={keys} onOpenChange={onKeys}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
          <Dialog.Content
            aria-describedby={undefined}
            className={
              "fixed left-1/2 top-[12dvh] z-50 w-123 max-w-[94vw] -translate-x-1/2 rounded-lg border border-strong " +
              "bg-lifted p-5 shadow-2xl"
            }
          >
            <Dialog.Title>Keys</Dialog.Title>
            <dl className="mt-3">
              {KEYS.map(([k, what]) => (
                <div key={k} className="flex justify-between gap-4 border-b border-line py-1.5">
                  <dt className="num">{k}</dt>
                  <dd className="text-right">{what}</dd>
                </div>
              ))}
            </dl>
            <Dialog.Close className="btn mt-4">Close</Dialog.Close>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}
