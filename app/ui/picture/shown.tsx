/** A picture that was made, drawn on a canvas; and the piece that it lies on, clipped to its outline. */
import { useEffect, useRef } from "react";
import type { Shown } from "../../workers/picture";

export function Pixels({ of, label, className }: { of: Shown; label: string; className?: string }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    canvas.width = of.w;
    canvas.height = of.h;
    canvas.getContext("2d")!.putImageData(new ImageData(of.data, of.w, of.h), 0, 0);
  }, [of]);
  return <canvas ref={ref} role="img" aria-label={label} className={className} />;
}
