import { type ReactNode, useRef } from "react";

/** A field for files that is not drawn, and a function that opens it. The same file can be chosen again. */
export function useFileChooser({
  label,
  accept,
  multiple = false,
  onFiles,
}: {
  /** What it is for, for readers of the screen. */
  label: string;
  /** Media types and endings, as in HTML's `accept`. */
  accept: string;
  multiple?: boolean;
  /** Called with at least one file. */
  onFiles: (files: readonly File[]) => void;
}): { input: ReactNode; choose: () => void } {
  const field = useRef<HTMLInputElement>(null);
  const input = (
    <input
      ref={field}
      type="file"
      accept={accept}
      multiple={multiple}
      className="hidden"
      aria-label={label}
      tabIndex={-1}
      onChange={({ target }) => {
        const files = [...(target.files ?? [])];
        target.value = "";
        if (files.length) onFiles(files);
      }}
    />
  );
  return { input, choose: () => field.current?.click() };
}
