/** One of a meter's repeats is left out, with its reason; the others stay. */
import { Popover } from "radix-ui";
import { useState, type ReactElement } from "react";
import { spoken, say } from "../../app/language";

const REASONS = spoken(["read too soon", "typed wrong", "probe not under water"]);

export function LeaveOneOut({
  displays,
  onLeaveOut,
}: {
  displays: readonly number[];
  onLeaveOut: (index: number, because: string) => Promise<void>;
}): ReactElement {
  const [because, setBecause] = useState(REASONS[0]!);
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="key bare">{say("Leave one out")}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 p-4 grid gap-2 w-[290px]"
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          collisionPadding={16}
          aria-label={say("Leave one display out")}
        >
          <label className="field">
            <span>{say("Because it was")}</span>
            <select className="input" value={because} onChange={(e) => setBecause(e.target.value)}>
              {REASONS.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </select>
          </label>
          <div className="flex gap-2 flex-wrap">
            {displays.map((d, i) => (
              <button
                key={i}
                className="key small"
                onClick={() => {
                  setOpen(false);
                  void onLeaveOut(i, say("left out {d}: {because}", { d, because }));
                }}
              >
                {say("{d} mg/L", { d })}
              </button>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
