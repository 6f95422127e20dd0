/** Something that is shown this once: a code to be told or printed, a token to be copied. */
import { Copy } from "lucide-react";
import { useState, type ReactElement } from "react";
import { say } from "../../app/language";

export function Code({
  code,
  what,
  address,
}: {
  code: string;
  what: string;
  address?: string;
}): ReactElement {
  const [copied, setCopied] = useState(false);
  return (
    <div role="status" className="bg-yuzu-pale px-4 py-3 my-3 grid gap-2 justify-items-start">
      <p>{what}</p>
      <p className="num text-[22px] font-semibold break-all select-all" data-code="">
        {code}
      </p>
      {address !== undefined && <p className="text-m break-all">{address}</p>}
      <button
        className="key"
        onClick={() => {
          void navigator.clipboard.writeText(address ?? code).then(() => setCopied(true));
        }}
      >
        <Copy size={18} aria-hidden="true" />
        {copied ? say("Copied") : say("Copy it")}
      </button>
      <p className="text-s text-ink-2">{say("It is shown this once, and kept nowhere.")}</p>
    </div>
  );
}
