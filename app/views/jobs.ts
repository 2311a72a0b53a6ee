/** What the list of jobs shows beside their heads. */
import { paintless, ROUTES } from "../core/catalogue/routes";
import { bodyOf, substrateNamed } from "../core/catalogue/substrates";
import { leftBare } from "../core/process/polarity";
import type { Thumb } from "../core/geometry/thumb";

/** a dark top of which nobody has said which */
export const DARK_TOP = "#1f1a22";

interface Listed {
  substrateId: string;
  body?: { colour?: string; beneath?: string };
  route: string | null;
  topId: string | null;
  thumb: Thumb | null;
}
/** Colours of the piece as they are meant, by the drawing and the Shelf; a way that lifts a dark top leaves it where no zone is. */
export function looksOf(j: Listed, shelf: ReadonlyMap<string, string>): { ground: string; zones: string[] } {
  const kind = bodyOf({ id: j.substrateId, ...j.body });
  const body = kind.colour;
  const way = ROUTES.find((r) => r.id === j.route);
  const lifts = way?.lifts;
  // a way without paint leaves the beam's own mark
  const mark = paintless(way ?? null) ? leftBare(kind) : null;
  return {
    ground: lifts ? (shelf.get(j.topId ?? "") ?? DARK_TOP) : body,
    zones: (j.thumb?.zones ?? []).map((z) =>
      z.burn ? (kind.mark?.colour ?? body) : z.bare ? body : (mark ?? shelf.get(z.productId ?? "") ?? z.colour),
    ),
  };
}

interface Again {
  id: string;
  title: string;
  client: string;
  quantity: number;
  substrateId: string;
  due: string | null;
  closedAt: string | null;
}
/** Jobs that can be made again, the newest first by when they are due or were wrapped up, as a list to pick from. */
export const earlier = (heads: readonly Again[]) => ({
  jobs: [...heads]
    .sort(
      (a, b) => (b.closedAt ?? b.due ?? "").localeCompare(a.closedAt ?? a.due ?? "") || a.title.localeCompare(b.title),
    )
    .map((h) => ({
      value: h.id,
      label: `${h.title}: ${h.quantity} of ${substrateNamed(h.substrateId).name.toLowerCase()}${h.client ? `, for ${h.client}` : ""}`,
    })),
});
