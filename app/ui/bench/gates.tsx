/** What has to be answered before a step begins: below its name, so that what is to be done stays in sight. */
import { Link } from "react-router";
import type { Gate } from "../../core/bench/gates";

const pale = "btn shrink-0 !min-h-glove !border-bench-ink";
const HEAD: Record<Gate["by"], string> = {
  look: "Stopped",
  plan: "Would ruin it",
  accept: "Hazard",
  proof: "Proof",
  again: "First piece",
  workshop: "Machine",
  tick: "First",
};

export function Gates({ gates, onSend }: { gates: Gate[]; onSend(more: Record<string, string>): void }) {
  return (
    <section aria-label="Before it begins" className="rounded-lg border-2 border-bench-waiting p-3">
      <p className="mb-1 text-lead text-bench-note">Before it begins</p>
      <ul className="flex flex-col gap-2">
        {gates.map((g) => (
          <li
            key={g.id}
            data-gate={g.id}
            data-snag={g.snag?.rule}
            className="flex flex-wrap items-center justify-between gap-3"
          >
            <span className="min-w-0 flex-1 basis-72">
              <strong>{g.snag?.severity === "never" ? "Never" : HEAD[g.by]}: </strong>
              {g.say}.
            </span>
            <Ways of={g} onSend={onSend} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const Again = ({ of: g, onSend }: { of: Gate; onSend(more: Record<string, string>): void }) =>
  g.next === undefined ? null : (
    <button type="button" className={pale} onClick={() => onSend({ intent: "proof-again" })}>
      {g.by === "again" ? "Piece" : "Not accepted: piece"} {g.next} goes first
    </button>
  );

function Ways({ of: g, onSend }: { of: Gate; onSend(more: Record<string, string>): void }) {
  switch (g.by) {
    case "tick":
      return (
        <button type="button" className={pale} onClick={() => onSend({ intent: "tick", tick: g.id })}>
          Yes, it is so
        </button>
      );
    case "accept":
      return (
        <button
          type="button"
          data-fix="accept"
          className={pale}
          onClick={() => onSend({ intent: "fix", rule: String(g.snag!.rule), where: g.snag!.where, fix: "accept" })}
        >
          Read and accepted
        </button>
      );
    case "look":
      return (
        <span className="flex flex-wrap gap-2">
          <button
            type="button"
            className={pale}
            onClick={() => onSend({ intent: "check", step: g.step!, answer: "good" })}
          >
            Mended, looked at again: good
          </button>
          <Again of={g} onSend={onSend} />
          <Link className={pale} to={`../layers?step=${g.step}`} relative="path">
            Mend the plan, or strip
          </Link>
          <button type="button" className={pale} onClick={() => onSend({ intent: "open-against" })}>
            Go on against advice…
          </button>
        </span>
      );
    case "proof":
      return (
        <span className="flex flex-wrap gap-2">
          {!g.sent && (
            <button type="button" className={pale} onClick={() => onSend({ intent: "proof-sent" })}>
              Sent just now
            </button>
          )}
          <button type="button" className={pale} onClick={() => onSend({ intent: "proof-accepted" })}>
            Accepted just now
          </button>
          <Again of={g} onSend={onSend} />
          <Link className={pale} to="../brief" relative="path">
            Dates on the Brief
          </Link>
        </span>
      );
    case "again":
      return g.next === undefined ? (
        <Link className={pale} to="../route" relative="path">
          To the Route page
        </Link>
      ) : (
        <Again of={g} onSend={onSend} />
      );
    case "workshop":
      return (
        <Link className={pale} to="/workshop/machines">
          Go through its list
        </Link>
      );
    default:
      return (
        <Link
          className={pale}
          to={g.snag?.where.startsWith("/") === false ? `../layers?step=${g.snag.where.split("/")[0]}` : "../layers"}
          relative="path"
        >
          {g.snag?.severity === "never" ? "Mend it first" : "Mend or waive it"}
        </Link>
      );
  }
}
