/** A place to drop a file or to choose one by: one file of the kinds named, below the limit; anything else is refused in a sentence. */
import clsx from "clsx";
import type { ReactNode } from "react";
import { type FileRejection, useDropzone } from "react-dropzone";

export const tooLarge = (file: File, limit: number): string =>
  `“${file.name}” is ${(file.size / 1e6).toFixed(1)} MB; the limit is ${limit / 1e6} MB.`;
/** What a drop is refused for, in words; the file is named. */
export function refusal(all: FileRejection[], what: string, limit: number): string {
  if (all.length > 1) return `${all.length} files were dropped; one at a time, please.`;
  const [{ file, errors }] = all;
  if (errors.some((e) => e.code === "file-too-large")) return tooLarge(file, limit);
  return `“${file.name}” was not taken in: ${what} is wanted.`;
}

/**
 * @param label what the file input is called
 * @param what what is wanted, as a refusal says it, with its article: “an SVG file”
 * @param kinds media types with their endings
 * @param limit bytes
 */
export function DropFile({
  label,
  what,
  kinds,
  limit,
  busy = false,
  onFile,
  onRefused,
  className,
  children,
}: {
  label: string;
  what: string;
  kinds: Record<string, string[]>;
  limit: number;
  busy?: boolean;
  onFile: (file: File) => void;
  onRefused: (why: string) => void;
  className?: string;
  children: (choose: () => void) => ReactNode;
}) {
  const drop = useDropzone({
    accept: kinds,
    maxSize: limit,
    multiple: false,
    disabled: busy,
    noClick: true,
    noKeyboard: true,
    // what is dropped here is no file for the page around it
    noDragEventsBubbling: true,
    onDropAccepted: ([file]) => onFile(file),
    onDropRejected: (all) => onRefused(refusal(all, what, limit)),
  });
  return (
    <div
      {...drop.getRootProps({ role: undefined, tabIndex: undefined })}
      data-drop={label}
      className={clsx(
        "flex flex-col items-start gap-2 rounded-lg border-2 border-dashed p-4",
        drop.isDragActive ? "border-act bg-lifted" : "border-strong",
        className,
      )}
    >
      <input {...drop.getInputProps({ "aria-label": label, tabIndex: -1 })} />
      {children(drop.open)}
    </div>
  );
}
