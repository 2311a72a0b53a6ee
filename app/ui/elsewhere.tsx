/** Workshop or Shelf have changed since this job began: what that would mean for the rest, and whether it shall count. */
import type { ElsewhereView } from "../views/elsewhere";
import { ActButton } from "./kit/field";

export function Elsewhere({ of: d }: { of: ElsewhereView }) {
  return (
    <section aria-labelledby="elsewhere" className="border-b border-line p-3 text-small">
      <h3 id="elsewhere">Workshop or Shelf have changed</h3>
      <p className="text-muted">
        This job has begun and goes on by what it was begun with. Taken over, of the rest this would change:
      </p>
      <ul className="my-1">
        {d.lines.map((l) => (
          <li key={l} className="border-t border-line py-1">
            {l}
          </li>
        ))}
        {d.more > 0 && <li className="border-t border-line py-1 text-muted">and {d.more} more</li>}
      </ul>
      <p className="flex flex-wrap gap-x-4">
        <ActButton className="link-act" act={{ intent: "take-over" }}>
          Take it over
        </ActButton>
        <ActButton className="link-act" act={{ intent: "keep-begun" }}>
          Go on as begun
        </ActButton>
      </p>
    </section>
  );
}
