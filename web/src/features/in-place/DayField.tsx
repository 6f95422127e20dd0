/** A day that may not be known. */
import { useId, type ReactElement } from "react";

import { today } from "../aftercare/dates";
import { say } from "../../app/language";

export function DayField({
  label,
  value,
  hint = say("empty: not known"),
  onCommit,
}: {
  label: string;
  hint?: string;
  value: string | null;
  onCommit: (day: string | null) => void;
}): ReactElement {
  const id = useId();
  return (
    <div className="field">
      <label htmlFor={id} className="font-semibold text-m">
        {label}
      </label>
      <input
        id={id}
        type="date"
        className="input"
        value={value ?? ""}
        max={today()}
        aria-describedby={`${id}h`}
        onChange={(e) => onCommit(e.target.value === "" ? null : e.target.value)}
      />
      <small id={`${id}h`} className="text-s text-ink-2">
        {hint}
      </small>
    </div>
  );
}
