/** A key that asks for a file; the same file can be chosen again. */
import { Camera, Upload } from "lucide-react";
import { useRef, type ReactElement } from "react";
import { say } from "../app/language";

export function FileKey({
  label,
  accept,
  words,
  busy = false,
  camera = false,
  bare = camera,
  onFile,
}: {
  label: string;
  accept: string;
  words: string;
  busy?: boolean;
  /** A telephone opens its camera; elsewhere a file is chosen. */
  camera?: boolean;
  /** Less than the keys beside it. */
  bare?: boolean;
  onFile: (f: File) => void;
}): ReactElement {
  const Icon = camera ? Camera : Upload;
  const chosen = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={chosen}
        type="file"
        accept={accept}
        capture={camera ? "environment" : undefined}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const f = e.target.files?.[0];
          e.target.value = "";
          if (f) onFile(f);
        }}
      />
      <button
        type="button"
        className={bare ? "key bare print:hidden" : "key"}
        disabled={busy}
        onClick={() => chosen.current?.click()}
      >
        <Icon size={20} aria-hidden="true" />
        {busy ? say("Reading the file") : words}
      </button>
    </>
  );
}
