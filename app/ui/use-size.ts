import { useEffect, useState, type RefObject } from "react";

/** Width and height of an element in CSS px, kept up to date. */
export function useSize(ref: RefObject<HTMLElement | null>): { w: number; h: number } {
  const [size, set] = useState({ w: 0, h: 0 });
  useEffect(() => {
    const el = ref.current;
    if (!el) return;
    const read = (): void => set({ w: Math.floor(el.clientWidth), h: Math.floor(el.clientHeight) });
    read();
    const ro = new ResizeObserver(read);
    ro.observe(el);
    return () => ro.disconnect();
  }, [ref]);
  return size;
}
