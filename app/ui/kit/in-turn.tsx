/** Parts of a page that come one after another, so that no turn of the page takes long. */
import { startTransition, useEffect, useState } from "react";

/** Made, and made anew where it is another one, once what stands before it is on the page. */
export function InTurn<T>({ of, children }: { of: T; children: (of: T) => React.ReactNode }) {
  const [mine, come] = useState<{ of: T } | null>(null);
  useEffect(() => startTransition(() => come({ of })), [of]);
  return mine && children(mine.of);
}
