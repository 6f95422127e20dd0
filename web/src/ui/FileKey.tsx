/** A key that asks for a file; the same file can be chosen again. */
import { Upload } from "lucide-react";
import { useRef, type ReactElement } from "react";

export function FileKey({
  label,
  accept,
  words,
  busy = false,
  onFile,
}: {
  label: string;
  accept: string;
  words: string;
  busy?: boolean;
  onFile: (f: File) => void;
}): ReactElement {
  const chosen = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={chosen}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const f = e.target.files?.[0];
          e.target.value = "";
          if (f) onFile(f);
        }}
      />
      <button type="button" className="key" disabled={busy} onClick={() => chosen.current?.click()}>
        <Upload size={20} aria-hidden="true" />
        {busy ? "Reading the file" : words}
      </button>
    </>
  );
}
