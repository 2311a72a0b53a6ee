/** The one effect on data: another tab has stored something, so the loaders run again. Where that can no longer be heard, it is told. */
import { useCallback, useContext, useEffect, useRef, useState } from "react";
import { UNSAFE_DataRouterContext as RouterContext } from "react-router";
import { watch } from "../store/queries";
import { troubleOf } from "../store/trouble";

type Router = NonNullable<React.ContextType<typeof RouterContext>>["router"];
/** Asked of the router itself: what React shows of it may be a moment old. */
const isActing = ({ state }: Router): boolean =>
  state.navigation.state === "submitting" || [...state.fetchers.values()].some((f) => f.state === "submitting");

/**
 * @returns what runs the loaders again as soon as no act of this page is under way; asked for twice before that, once. Run sooner they
 * would make the router forget where the act leads: a new job would be stored, and its page not opened.
 */
export function useReadAgain(): () => void {
  const router = useContext(RouterContext)!.router;
  const asked = useRef(false);
  return useCallback(() => {
    if (asked.current) return;
    asked.current = true;
    let open = true;
    const read = (): void => {
      if (!open || isActing(router)) return;
      stop();
      open = asked.current = false;
      void router.revalidate();
    };
    const stop = router.subscribe(() => void setTimeout(read));
    read();
  }, [router]);
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
