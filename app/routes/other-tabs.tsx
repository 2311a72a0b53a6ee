/** The one effect on data: another tab has stored something, so the loaders run again. Where that can no longer be heard, it is told. */
import { useEffect, useState } from "react";
import { useRevalidator } from "react-router";
import { watch } from "../store/queries";
import { troubleOf } from "../store/trouble";

/** @returns why other tabs are no longer heard; null: they are */
export function useOtherTabs(): string | null {
  const { revalidate } = useRevalidator();
  const [deaf, setDeaf] = useState<string | null>(null);
  useEffect(
    () =>
      watch(
        () => void revalidate(),
        (e) =>
          setDeaf(
            troubleOf(e)?.say ?? `What went wrong: ${e instanceof Error ? e.message.replace(/\.$/, "") : "not known"}.`,
          ),
      ),
    [revalidate],
  );
  return deaf;
}

/** Told where it happens, over the page; what was stored stays stored. */
export function Deaf({ why }: { why: string | null }) {
  if (why === null) return null;
  return (
    <p role="alert" data-deaf className="flex flex-wrap items-center gap-3 bg-lifted px-5 py-2 text-wrong">
      What other tabs store is no longer seen on this page. {why}
      <button className="btn" onClick={() => location.reload()}>
        Load it again
      </button>
    </p>
  );
}
