/** A later last day for a proposal that runs out, or has run out. */
import { useState, type ReactElement } from "react";

import { say } from "../../app/language";
import { Sheet } from "../../ui/Sheet";

export function Extend({
  until,
  busy,
  onExtend,
}: {
  until: string;
  busy: boolean;
  onExtend: (day: string) => void;
}): ReactElement {
  const [open, setOpen] = useState(false);
  const [day, setDay] = useState("");
  return (
    <>
      <button className="key" disabled={busy} onClick={() => setOpen(true)}>
        {say("Extend")}
      </button>
      {open && (
        <Sheet title={say("Until when it can be signed")} onClose={() => setOpen(false)}>
          <form
            className="grid gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              onExtend(day);
              setOpen(false);
            }}
          >
            <label className="field">
              <span>{say("The new last day")}</span>
              <input
                type="date"
                className="input"
                required
                min={until}
                value={day}
                onChange={(e) => setDay(e.target.value)}
              />
              <small className="text-s text-ink-2">
                {say("The paper keeps its prices. To change them, write the next revision.")}
              </small>
            </label>
            <button className="key go justify-self-end" disabled={day === ""}>
              {say("Extend")}
            </button>
          </form>
        </Sheet>
      )}
    </>
  );
}
