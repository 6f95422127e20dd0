/** A key that asks in a sheet for what its action needs: a reason in a line, and whatever else. */
import { useState, type ReactElement, type ReactNode } from "react";

import { say } from "../app/language";
import { Sheet } from "./Sheet";

export function ReasonKey({
  words,
  title,
  hint,
  busy,
  needed = true,
  more,
  onReason,
}: {
  words: string;
  title: string;
  hint: string;
  busy: boolean;
  /** Whether nothing happens without a reason. */
  needed?: boolean;
  more?: ReactNode;
  onReason: (because: string) => void;
}): ReactElement {
  const [open, setOpen] = useState(false);
  const [because, setBecause] = useState("");
  return (
    <>
      <button className="key" disabled={busy} onClick={() => setOpen(true)}>
        {words}
      </button>
      {open && (
        <Sheet title={title} onClose={() => setOpen(false)}>
          <form
            className="grid gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              onReason(because.trim());
              setOpen(false);
            }}
          >
            <label className="field">
              <span>{needed ? say("Why") : say("Why, if they said")}</span>
              <input
                className="input"
                maxLength={600}
                required={needed}
                value={because}
                onChange={(e) => setBecause(e.target.value)}
              />
              <small className="text-s text-ink-2">{hint}</small>
            </label>
            {more}
            <button className="key go justify-self-end" disabled={needed && because.trim() === ""}>
              {words}
            </button>
          </form>
        </Sheet>
      )}
    </>
  );
}
