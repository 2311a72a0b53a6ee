/** Readers of our files that are not ours. Where one is absent, the tests that read with it are passed over, with a word. */
import { spawnSync } from "node:child_process";

/** How to find out whether a reader is here, and what Debian calls the package that has it. */
const READERS = {
  pdftotext: { ask: ["pdftotext", "-v"], debian: "poppler-utils" },
  qpdf: { ask: ["qpdf", "--version"], debian: "qpdf" },
  icalendar: { ask: ["/usr/bin/python3", "-c", "import icalendar"], debian: "python3-icalendar" },
  ezdxf: { ask: ["/usr/bin/python3", "-c", "import ezdxf"], debian: "python3-ezdxf" },
  rsvg: { ask: ["rsvg-convert", "--version"], debian: "librsvg2-bin" },
  zipfile: { ask: ["/usr/bin/python3", "-c", "import zipfile"], debian: "python3" },
} as const;
export type Reader = keyof typeof READERS;

/** Those of the readers that are not on this machine, by their Debian package. */
export const absent = (...names: Reader[]): string[] =>
  names
    .map((n) => READERS[n])
    .filter(({ ask: [program, ...args] }) => spawnSync(program, args).status !== 0)
    .map((r) => r.debian);

/**
 * `test`, or, where a reader is absent, one that passes over and says so on the error output (which `--silent` leaves alone).
 */
export function testWith(...names: Reader[]): typeof test {
  const missing = absent(...names);
  if (!missing.length) return test;
  process.stderr.write(
    `Passed over, for want of ${missing.join(", ")}: tests that read our files with ${names.join(", ")}.\n`,
  );
  return test.skip as typeof test;
}
