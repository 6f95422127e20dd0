/** A key that strikes something: it asks for the reason first, in one touch. */
import { Undo2 } from "lucide-react";
import { Popover } from "radix-ui";
import { useState, type ReactElement } from "react";
import { say } from "../app/language";

export function StrikeKey({
  words,
  reasons,
  busy,
  small = false,
  onStrike,
}: {
  words: string;
  reasons: readonly string[];
  busy: boolean;
  /** The sign alone, where many stand below each other. */
  small?: boolean;
  onStrike: (because: string) => void;
}): ReactElement {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className={small ? "grid place-items-center w-11 h-11 shrink-0" : "key bare"}
        aria-label={small ? words : undefined}
        title={small ? words : undefined}
        disabled={busy}
      >
        <Undo2 size={20} aria-hidden="true" />
        {!small && words}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 p-3 grid gap-1 w-[270px]"
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          collisionPadding={16}
          aria-label={say("Why it is crossed out")}
        >
          <span className="text-m text-ink-2 px-3">
            {say("Crossed out, and kept on record. Why?")}
          </span>
          {reasons.map((because) => (
            <button
              key={because}
              className="key bare justify-start"
              onClick={() => {
                setOpen(false);
                onStrike(because.toLowerCase());
              }}
            >
              {because}
            </button>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
