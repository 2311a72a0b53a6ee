/** The plan checker's list: what stands against the plan, with its fixes previewed in place and applied in one press. */
import type { SnagRow } from "../views/shown";
import { Form, useFetcher } from "react-router";
import { useState } from "react";
import { Mark } from "./kit/bits";
import type { Outcome } from "../core/records/outcome";
import { Fold } from "./kit/fold";

export function Snags({ rows, onStep }: { rows: SnagRow[]; onStep(id: string): void }) {
  const open = rows.filter((r) => r.waived === null);
  const waived = rows.filter((r) => r.waived !== null);
  return (
    <section aria-labelledby="snags">
      <h2 id="snags" className="mb-1 text-lead">
        {open.length === 0 ? "No snags" : open.length === 1 ? "1 snag" : `${open.length} snags`}
      </h2>
      {!open.length && <p className="text-muted">Nothing stands against this plan.</p>}
      <ul>
        {open.map((r) => (
          <Row key={`${r.rule}${r.where}`} r={r} onStep={onStep} />
        ))}
      </ul>
      {waived.length > 0 && (
        <Fold summary={`${waived.length} accepted or waived`} className="mt-2">
          <ul>
            {waived.map((r) => (
              <li key={`${r.rule}${r.where}`} data-snag={r.rule} className="border-t border-line py-2 text-small">
                <Mark severity={r.severity} /> <p>{r.why}</p>
                <p className="text-muted">{r.waived === "accepted" ? "Read and accepted." : `Waived: ${r.waived}`}</p>
                <Form method="post" preventScrollReset navigate={false}>
                  <input type="hidden" name="rule" value={r.rule} />
                  <input type="hidden" name="where" value={r.where} />
                  <button className="link-act" name="intent" value="unwaive">
                    Raise it again
                  </button>
                </Form>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

function Row({ r, onStep }: { r: SnagRow; onStep(id: string): void }) {
  const fetcher = useFetcher<Outcome>();
  const [why, setWhy] = useState(false);
  const send = (more: Record<string, string>): void =>
    void fetcher.submit({ rule: String(r.rule), where: r.where, ...more }, { method: "post" });
  const mayWaive = r.severity !== "never" && r.severity !== "hazard";
  return (
    <li data-snag={r.rule} className="border-t border-line py-2.5">
      <div className="flex items-center justify-between gap-2">
        <Mark severity={r.severity} />
        {r.step && r.place && (
          <button type="button" className="link-act max-w-46 truncate text-small" onClick={() => onStep(r.step!)}>
            {r.place}
          </button>
        )}
      </div>
      <p>{r.why}</p>
      <ul className="mt-1">
        {r.fixes.map((f) => (
          <li key={f.id}>
            <button
              type="button"
              data-fix={f.id}
              className="link-act"
              disabled={fetcher.state !== "idle"}
              onClick={() => send({ intent: "fix", fix: f.id })}
            >
              {f.label}
            </button>
            {f.preview && <p className="tag">{f.preview}</p>}
          </li>
        ))}
      </ul>
      {!r.fixes.length && (
        <p className="tag">
          {r.later
            ? "Its fixes are tried once the snags above are dealt with."
            : "No single change clears this without raising something as bad: change the material, the beam or the route."}
        </p>
      )}
      {mayWaive && !why && (
        <button type="button" className="link-act !text-muted" onClick={() => setWhy(true)}>
          Waive it…
        </button>
      )}
      {mayWaive && why && (
        <fetcher.Form method="post" className="mt-1 flex flex-col gap-1">
          <input type="hidden" name="intent" value="waive" />
          <input type="hidden" name="rule" value={r.rule} />
          <input type="hidden" name="where" value={r.where} />
          <label className="text-small text-muted">
            Why may it stand?
            <input name="reason" className="field-in text-ink" autoFocus maxLength={400} />
          </label>
          <span className="flex gap-3">
            <button className="btn">Waive with this reason</button>
            <button type="button" className="btn btn-quiet" onClick={() => setWhy(false)}>
              Leave it
            </button>
          </span>
        </fetcher.Form>
      )}
      {fetcher.data?.error && (
        <p role="alert" className="text-wrong">
          {fetcher.data.error}
        </p>
      )}
    </li>
  );
}
