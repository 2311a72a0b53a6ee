/** Where makers disagree: each matter with its pick, the default and why. For a job, or for the whole shop. */
import { Link } from "react-router";
import { SCHOOLS, schoolPick } from "../core/catalogue/schools";
import { PickField } from "./kit/field";

export function SchoolsPart({
  job,
  shop,
  only,
}: {
  job: Record<string, string> | null;
  shop: Record<string, string>;
  only?: string[];
}) {
  return (
    <div className="grid grid-cols-1 gap-x-8 gap-y-3 lg:grid-cols-2">
      {SCHOOLS.filter((s) => !only || only.includes(s.id)).map((s) => {
        const now = schoolPick(s.id, job ?? undefined, shop);
        const own = (job ?? shop)[s.id] ?? "";
        const fallback = schoolPick(s.id, undefined, job ? shop : undefined);
        return (
          <div key={s.id}>
            <PickField
              name={`school:${s.id}`}
              label={s.matter}
              value={own}
              from={now.from}
              extra={{ intent: job ? "choice" : "school" }}
              options={[
                {
                  value: "",
                  label: `${job ? "as the shop" : "default"}: ${s.picks.find((p) => p.id === fallback.pick)!.name.toLowerCase()}`,
                },
                ...s.picks.map((p) => ({
                  value: p.id,
                  label: `${p.name}: ${p.says.replace(/\.$/, "").toLowerCase()}`,
                })),
              ]}
            />
            <p className="tag">
              {s.why}{" "}
              <Link className="text" to={`/guide/school-${s.id}`}>
                Both sides
              </Link>
            </p>
          </div>
        );
      })}
    </div>
  );
}
