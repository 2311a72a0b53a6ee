/**
 * A table: rows in the order they come in, or by a column that was pressed; columns that a narrow screen has no room for are left out;
 * of very many rows only those in sight are on the page. Reached and sorted by keyboard.
 */
import {
  columnFilteringFeature,
  createColumnHelper,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type Row,
} from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useLayoutEffect, useMemo, useRef, useState } from "react";

export interface Column<T> {
  id: string;
  name: string;
  cell: (row: T) => React.ReactNode;
  /** what it is sorted by; absent: it is not */
  by?: (row: T) => string | number;
  /** what a search looks through; absent: the column is passed over */
  find?: (row: T) => string;
  /** the row's own name */
  heads?: boolean;
  /** left out on screens narrower than this */
  from?: "sm" | "md" | "lg";
  className?: string;
  /** the name of the column is for screen readers only */
  quiet?: boolean;
}

const compare = new Intl.Collator(undefined, { numeric: true }).compare;
const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  columnFilteringFeature,
  globalFilteringFeature,
  filteredRowModel: createFilteredRowModel(),
});
const HIDE = { sm: "max-sm:hidden", md: "max-md:hidden", lg: "max-lg:hidden" };
/** rows from which on only those in sight are on the page */
const MANY = 120;
/** height of a row before it is measured, px */
const ROW = 43;

export function Table<T extends object>({
  rows,
  columns,
  rowId,
  label,
  find = "",
  none,
  rowProps,
}: {
  rows: readonly T[];
  columns: readonly Column<T>[];
  rowId: (row: T) => string;
  label: string;
  /** words that a row has to hold, all of them */
  find?: string;
  /** what is said where no row holds them */
  none?: string;
  rowProps?: (row: T) => Record<string, string | undefined>;
}) {
  const defs = useMemo(() => {
    const helper = createColumnHelper<typeof features, T>();
    return helper.columns(
      columns.map((c) =>
        helper.accessor((r: T) => c.by?.(r) ?? "", {
          id: c.id,
          header: c.name,
          enableSorting: c.by !== undefined,
          enableGlobalFilter: c.find !== undefined,
          sortFn: (a, b) => {
            const [x, y] = [c.by!(a.original), c.by!(b.original)];
            return typeof x === "number" && typeof y === "number" ? x - y : compare(String(x), String(y));
          },
        }),
      ),
    );
  }, [columns]);
  const looked = columns.filter((c) => c.find);
  const table = useTable({
    features,
    columns: defs,
    data: rows as T[],
    getRowId: rowId,
    enableMultiSort: false,
    sortDescFirst: false,
    state: { globalFilter: find },
    getColumnCanGlobalFilter: (c) => looked.some((x) => x.id === c.id),
    // a row holds the words anywhere: asked once a row, of the first column that is looked through
    globalFilterFn: (row, id, words: string) =>
      id === looked[0]?.id &&
      words
        .toLowerCase()
        .split(/\s+/)
        .every((w) =>
          looked
            .map((c) => c.find!(row.original))
            .join(" ")
            .toLowerCase()
            .includes(w),
        ),
  });
  const shown = table.getRowModel().rows;
  const by = new Map(columns.map((c) => [c.id, c]));
  const line = (row: Row<typeof features, T>, more: object = {}) => (
    <tr key={row.id} {...more} {...rowProps?.(row.original)}>
      {columns.map((c) =>
        c.heads ? (
          <th key={c.id} scope="row" className={`!text-base !font-normal !text-ink ${c.className ?? ""}`}>
            {c.cell(row.original)}
          </th>
        ) : (
          <td key={c.id} className={`${c.from ? HIDE[c.from] : ""} ${c.className ?? ""}`}>
            {c.cell(row.original)}
          </td>
        ),
      )}
    </tr>
  );
  return (
    <>
      <table aria-label={label} aria-rowcount={shown.length > MANY ? shown.length + 1 : undefined}>
        <thead>
          {table.getHeaderGroups().map((g) => (
            <tr key={g.id}>
              {g.headers.map((h) => {
                const c = by.get(h.column.id)!;
                const sorted = h.column.getIsSorted();
                return (
                  <th
                    key={h.id}
                    scope="col"
                    className={`${c.from ? HIDE[c.from] : ""} ${(c.className ?? "").replace(/\bnum\b/, "")}`}
                    aria-sort={sorted ? (sorted === "asc" ? "ascending" : "descending") : undefined}
                  >
                    {c.by ? (
                      <button type="button" className="sorts" onClick={() => h.column.toggleSorting()}>
                        {c.name}
                        {sorted === "asc" && <ArrowUp size={14} aria-hidden="true" />}
                        {sorted === "desc" && <ArrowDown size={14} aria-hidden="true" />}
                      </button>
                    ) : c.quiet ? (
                      <span className="sr-only">{c.name}</span>
                    ) : (
                      c.name
                    )}
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        {shown.length > MANY ? (
          <InSight rows={shown} line={line} wide={columns.length} />
        ) : (
          <tbody>{shown.map((r) => line(r))}</tbody>
        )}
      </table>
      {!shown.length && none && (
        <p role="status" className="mt-3 text-muted">
          {none}
        </p>
      )}
    </>
  );
}

/** The rows in sight, with empty room above and below for the others. */
function InSight<R extends { id: string }>({
  rows,
  line,
  wide,
}: {
  rows: readonly R[];
  line: (row: R, more: object) => React.ReactNode;
  wide: number;
}) {
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => setTop(body.current ? body.current.getBoundingClientRect().top + window.scrollY : 0), []);
  const v = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => ROW,
    overscan: 20,
    scrollMargin: top,
    getItemKey: (i) => rows[i].id,
  });
  const items = v.getVirtualItems();
  const above = items.length ? items[0].start - top : 0;
  const below = items.length ? v.getTotalSize() - (items[items.length - 1].end - top) : 0;
  const room = (px: number) =>
    px > 0 && (
      <tr aria-hidden="true">
        <td colSpan={wide} className="!border-0 !p-0" style={{ height: px }} />
      </tr>
    );
  return (
    <tbody ref={body}>
      {room(above)}
      {items.map((it) =>
        line(rows[it.index], { ref: v.measureElement, "data-index": it.index, "aria-rowindex": it.index + 2 }),
      )}
      {room(below)}
    </tbody>
  );
}
