/** Steps with the waits between them as states. Dragged by pointer, or lifted with Space and moved with the arrow keys. */
import clsx from "clsx";
import type { StepRow } from "../../views/shown";
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Check, ChevronRight, GripVertical } from "lucide-react";
import { Collapsible } from "radix-ui";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { flushSync } from "react-dom";
import { Why } from "../kit/why";

export function StepList({
  rows,
  chosen,
  lit,
  onChoose,
  onMove,
  onLight,
}: {
  rows: StepRow[];
  chosen: string | null;
  lit: string | null;
  onChoose(id: string): void;
  onMove(id: string, after: string | null): void;
  onLight(id: string | null): void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // what piece 1 goes through alone follows the batch’s own steps
  const batch = rows.filter((r) => r.n !== null);
  const end = (e: DragEndEvent): void => {
    if (!e.over || e.active.id === e.over.id) return;
    const from = batch.findIndex((r) => r.id === e.active.id);
    const to = batch.findIndex((r) => r.id === e.over!.id);
    const rest = batch.filter((r) => r.id !== e.active.id);
    onMove(String(e.active.id), to === 0 ? null : rest[(to > from ? to : to) - 1].id);
  };
  const alone = rows.filter((r) => r.n === null);
  const inSight = alone.some((r) => r.id === chosen || r.now);
  const at = alone.length ? rows.indexOf(alone[0]) : rows.length;
  const row = (r: StepRow) => (
    <Row key={r.id} row={r} chosen={chosen === r.id} lit={lit === r.id} onChoose={onChoose} onLight={onLight} />
  );
  const title = (id: unknown): string => rows.find((r) => r.id === id)?.title ?? "";
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      accessibility={{
        announcements: {
          onDragStart: ({ active }) => `Lifted ${title(active.id)}.`,
          onDragOver: ({ active, over }) => (over ? `${title(active.id)} is over ${title(over.id)}.` : ""),
          onDragEnd: ({ active, over }) => (over ? `${title(active.id)} was put down at ${title(over.id)}.` : ""),
          onDragCancel: ({ active }) => `${title(active.id)} went back.`,
        },
        screenReaderInstructions: {
          draggable:
            "Press Space to lift the step, the arrow keys to move it, Space to put it down, Escape to leave it.",
        },
      }}
    >
      <SortableContext items={batch.map((r) => r.id)} strategy={verticalListSortingStrategy}>
        <ol aria-label="Steps" className="py-1">
          {rows.slice(0, at).map(row)}
          {alone.length > 0 && (
            <Alone key={String(inSight)} rows={alone} open={inSight}>
              {alone.map(row)}
            </Alone>
          )}
          {rows.slice(at + alone.length).map(row)}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

/** What the piece that goes first goes through alone: folded up until a step of it is chosen, or it is on its way. */
function Alone({ rows, open, children }: { rows: StepRow[]; open: boolean; children: ReactNode }) {
  const [shows, setShows] = useState(open);
  const done = rows.filter((r) => r.done).length;
  // on paper nothing can be unfolded: it is open before the page is drawn for it
  useEffect(() => {
    const unfold = (): void => flushSync(() => setShows(true));
    addEventListener("beforeprint", unfold);
    return () => removeEventListener("beforeprint", unfold);
  }, []);
  return (
    <li className="my-1 border-y border-line">
      <Collapsible.Root open={shows} onOpenChange={setShows}>
        <Collapsible.Trigger
          data-alone={rows.length}
          className="says flex min-h-9.5 w-full items-center gap-2 px-2 text-left max-lg:min-h-touch"
        >
          <ChevronRight size={14} aria-hidden="true" className={clsx("shrink-0", shows && "rotate-90")} />
          <span className="min-w-0 flex-1 leading-tight">
            One piece goes first: {rows.length} {rows.length === 1 ? "step" : "steps"} alone
          </span>
          {done > 0 && <span className="tag shrink-0">{done === rows.length ? "all done" : `${done} done`}</span>}
        </Collapsible.Trigger>
        <Collapsible.Content asChild>
          <ol aria-label="Steps of the piece that goes first" className="border-l-4 border-line">
            {children}
          </ol>
        </Collapsible.Content>
      </Collapsible.Root>
    </li>
  );
}

function Row({
  row: r,
  chosen,
  lit,
  onChoose,
  onLight,
}: {
  row: StepRow;
  chosen: boolean;
  lit: boolean;
  onChoose(id: string): void;
  onLight(id: string | null): void;
}) {
  const s = useSortable({ id: r.id, disabled: r.n === null });
  const el = useRef<HTMLLIElement>(null);
  useEffect(() => {
    // Only inside the list's own scroller: on a small screen the list is part of the page, which must not jump.
    const box = el.current?.closest<HTMLElement>("[data-scroller]");
    if (!chosen || !el.current || !box || box.scrollHeight <= box.clientHeight + 1) return;
    const [row, view] = [el.current.getBoundingClientRect(), box.getBoundingClientRect()];
    if (row.top < view.top) box.scrollTop -= view.top - row.top + 8;
    else if (row.bottom > view.bottom) box.scrollTop += row.bottom - view.bottom + 8;
  }, [chosen]);
  return (
    <li
      ref={(x) => {
        s.setNodeRef(x);
        el.current = x;
      }}
      data-step={r.id}
      style={{
        transform: CSS.Translate.toString(s.transform),
        transition: s.transition,
        zIndex: s.isDragging ? 5 : undefined,
      }}
      className="relative"
      onMouseEnter={() => onLight(r.id)}
      onMouseLeave={() => onLight(null)}
    >
      <div
        className={clsx(
          "flex items-center gap-1 border-2 pr-2",
          chosen ? "border-act bg-chosen font-semibold" : "border-transparent",
          lit && !chosen && "bg-lifted",
          s.isDragging && "bg-lifted shadow-lg",
        )}
      >
        {r.n !== null && (
          <button
            type="button"
            {...s.attributes}
            {...s.listeners}
            aria-label={`Move ${r.title}`}
            className="grid h-8 w-7 shrink-0 touch-none place-items-center text-muted max-lg:h-11 max-lg:w-9"
          >
            <GripVertical size={14} aria-hidden="true" />
          </button>
        )}
        <button
          type="button"
          aria-current={chosen ? "step" : undefined}
          onClick={() => onChoose(r.id)}
          className="says flex min-h-8.5 min-w-0 flex-1 items-center gap-2 text-left max-lg:min-h-touch"
        >
          <span className="num w-5 shrink-0 text-fine text-muted">{r.n ?? "·"}</span>
          <span className={`min-w-0 flex-1 leading-tight ${r.done ? "text-muted" : ""}`}>
            {r.title}
            {r.byHand && <span className="tag"> · by hand</span>}
          </span>
          {r.done && <Check size={15} aria-label="done" className="shrink-0 text-ready" />}
          {r.now && <span className="shrink-0 font-semibold text-ready">now</span>}
          {r.snags > 0 && (
            <span
              className="shrink-0 font-semibold text-wrong"
              aria-label={`${r.snags} ${r.snags === 1 ? "snag" : "snags"}`}
            >
              ▲{r.snags > 1 ? r.snags : ""}
            </span>
          )}
        </button>
        <Why quiet of={r.minutesWhy} className="shrink-0 text-small">
          {r.minutes}
        </Why>
      </div>
      {r.wait && (
        <p
          data-wait-for={r.waitFor ?? ""}
          data-opens={r.opens ?? ""}
          data-closes={r.closes ?? ""}
          className="hatch my-1 ml-14.5 mr-2 px-2 text-small"
        >
          <Why quiet of={r.waitWhy}>
            {r.wait}
          </Why>
        </p>
      )}
    </li>
  );
}
