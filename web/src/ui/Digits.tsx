/** A field for the six digits of a second factor, or a code from paper. */
import type { ReactElement } from "react";

export function Digits({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (v: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      <input
        className="input num"
        autoComplete="one-time-code"
        inputMode="numeric"
        maxLength={20}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
