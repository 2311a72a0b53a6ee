/** The job as visits: what is opened, covered, lifted and burnt at each, drawn on the piece; this is the weeding map too. */
import { Link } from "react-router";
import type { Job } from "../core/records/job";
import type { Visit } from "../core/plan/visits";
import { Face } from "./face";

type Shown = Visit & {
  names: { artwork: string[]; opens: string[]; covers: string[]; stays: string[] };
  colours: Record<string, string>;
  pictured: string[];
  weeding: string | null;
};
const list = (xs: string[]): string => xs.join(", ");

const labelOf = (v: Shown): string => {
  const way = v.mirrored ? ", mirrored as the laser gets it" : "";
  return `After “${v.title}”${way}: ${v.names.stays.length ? `masked ${list(v.names.stays)}` : "nothing masked"}`;
};

export function Visits({ job, visits, grain }: { job: Job; visits: Shown[]; grain: boolean }) {
  return (
    <ol className="grid fields-56 gap-4">
      {visits.map((v, i) => (
        <li key={v.step} data-visit={v.step} className="border-t border-line pt-2">
          <p className="font-semibold">
            {i + 1}.{" "}
            <Link className="hover:underline" to={`../layers?step=${v.step}`} relative="path">
              {v.title}
            </Link>
          </p>
          <Face
            job={job}
            colours={v.colours}
            grain={grain}
            masked={v.stays}
            lit={v.artwork.length ? v.artwork : v.opens}
            mirrored={v.mirrored}
            pictured={v.pictured}
            className="my-1 max-h-32 w-full"
            label={labelOf(v)}
          />
          <ul className="text-small">
            {v.artwork.length > 0 && (
              <li>
                Laser gets: {list(v.names.artwork)}
                {v.mirrored ? ", mirrored" : ""}
              </li>
            )}
            {v.opens.length > 0 && <li>Opens: {list(v.names.opens)}</li>}
            {v.weeding && <li data-weeding={v.step}>To lift, on each one: {v.weeding}</li>}
            {v.covers.length > 0 && <li>Covers: {list(v.names.covers)}</li>}
            <li className="text-muted">
              {v.names.stays.length ? `Stays masked: ${list(v.names.stays)}` : "Nothing is masked"}
            </li>
          </ul>
        </li>
      ))}
    </ol>
  );
}
