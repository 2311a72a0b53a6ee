/** A drawing measured in the worker, with how far it has got, a way to stop it, and why it was not taken in. */
import { useRef, useState } from "react";
import type { FoundArtwork } from "../core/vector/zones";
import { Cancelled, measureSvg, takesLong } from "../workers/zones";
import { Share } from "./kit/bits";

interface Standing {
  share: number | null;
  error: string | null;
  /** take the drawing that was left because it takes long */
  anyway?: () => void;
}
export interface Measuring {
  standing: Standing;
  measure(name: string, svg: string, widthMm: number | null): Promise<void>;
  stop(): void;
  refuse(why: string): void;
}
/** bytes of a drawing */
export const DRAWING_LIMIT = 8_000_000;
export const DRAWING = { "image/svg+xml": [".svg"] };

/** @param done what is to be done with what was found */
export function useMeasuring(done: (name: string, svg: string, found: FoundArtwork) => Promise<void>): Measuring {
  const [standing, setStanding] = useState<Standing>({ share: null, error: null });
  const going = useRef<AbortController | null>(null);
  const measure = async (name: string, svg: string, widthMm: number | null, anyway = false): Promise<void> => {
    const c = new AbortController();
    going.current = c;
    setStanding({ share: 0, error: null });
    try {
      const told = (share: number): void => setStanding({ share, error: null });
      const found = await measureSvg(svg, widthMm, c.signal, told, anyway);
      setStanding({ share: null, error: null });
      await done(name, svg, found);
    } catch (e) {
      setStanding({
        share: null,
        error: e instanceof Cancelled ? null : `“${name}” was not taken in. ${(e as Error).message}`,
        ...(takesLong(e) ? { anyway: () => void measure(name, svg, widthMm, true) } : {}),
      });
    }
  };
  return {
    standing,
    measure: (name, svg, widthMm) => measure(name, svg, widthMm),
    stop: () => going.current?.abort(),
    refuse: (error) => setStanding({ share: null, error }),
  };
}

/** What is said of it while it goes on, and where it was not taken in. */
export const MeasuringWords = ({ of: { standing, stop } }: { of: Measuring }) => (
  <>
    {standing.share !== null && (
      <div role="status" className="flex items-center gap-3">
        <Share of={standing.share} label="Measuring" />
        Measuring…{" "}
        <button type="button" className="link-act" onClick={stop}>
          Cancel
        </button>
      </div>
    )}
    {standing.error && (
      <p role="alert" className="text-wrong">
        {standing.error}{" "}
        {standing.anyway && (
          <button type="button" className="link-act" onClick={standing.anyway}>
            Take it as it is
          </button>
        )}
      </p>
    )}
  </>
);
