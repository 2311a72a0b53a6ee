/** The one effect on data: another tab has stored something, so the loaders run again. Where that can no longer be heard, it is told. */
import { useCallback, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { afterActs } from "../acts/answer";
import { watch } from "../store/queries";
import { troubleOf } from "../store/trouble";

/** @returns what runs the loaders again as soon as no act of this page is under way; asked for twice before that, once */
export function useReadAgain(): () => void {
  const { revalidate } = useRevalidator();
  const asked = useRef(false);
  return useCallback(() => {
    if (asked.current) return;
    asked.current = true;
    void afterActs().then(() => {
      asked.current = false;
      return revalidate();
    });
  }, [revalidate]);
}

/** @returns why other tabs are no longer heard; null: they are */
export function useOtherTabs(): string | null {
  const readAgain = useReadAgain();
  const [deaf, setDeaf] = useState<string | null>(null);
  useEffect(
    () =>
      watch(readAgain, (e) =>
        setDeaf(
          troubleOf(e)?.say ?? `What went wrong: ${e instanceof Error ? e.message.replace(/\.$/, "") : "not known"}.`,
        ),
      ),
    [readAgain],
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
