/** The panel that says why a number is what it is: which input moves it most, all its inputs, and where each came from. */
import clsx from "clsx";
import { Popover } from "radix-ui";
import type { Input } from "../../core/explain/why/inputs";
import { Moves } from "./moves";
import type { Opened } from "../../views/opened";

export default function WhyPanel({
  of,
  name,
  look,
  children,
}: {
  of: Opened;
  name: string;
  look: string;
  children: React.ReactNode;
}) {
  // Panels hang on the body: at the bench they keep its night and its size of type.
  const atBench: { "data-theme"?: string } =
    document.documentElement.dataset.bench === "on" ? { "data-theme": "night" } : {};
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger data-why={name} className={look}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={8}
          aria-label={of.title}
          {...atBench}
          className={clsx(
            "z-50 max-h-[min(80dvh,var(--radix-popover-content-available-height))] max-w-[94vw] overflow-auto",
            "rounded-lg border border-strong bg-lifted p-4 text-ink shadow-xl",
            atBench["data-theme"] ? "w-123 text-bench-body" : "w-107 text-body",
          )}
        >
          <h3>{of.title}</h3>
          {of.ask ? (
            <Moves ask={of.ask}>
              <Rows rows={of.rows()} />
            </Moves>
          ) : (
            <Rows rows={of.rows()} />
          )}
          <Popover.Close className="btn mt-3">Close</Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const Rows = ({ rows }: { rows: Input[] }) => (
  <dl className="mt-2">
    {rows.map((r, i) => (
      <div key={`${r.name}${i}`} className="flex justify-between gap-3 border-b border-line py-1">
        <dt className="max-w-[48%] shrink-0 text-muted">{r.name}</dt>
        <dd className="text-right">
          {r.value}
          {r.from && (
            <span className="tag">
              {" · "}
              {r.from}
            </span>
          )}
        </dd>
      </div>
    ))}
  </dl>
);
