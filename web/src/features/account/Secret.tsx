/** A field for a password. */
import type { ReactElement } from "react";

export function Secret({
  label,
  value,
  onChange,
  kind,
}: {
  label: string;
  value: string;
  onChange: (v: string) => void;
  kind: "current-password" | "new-password";
}): ReactElement {
  return (
    <label className="field w-[360px] max-w-full">
      <span>{label}</span>
      <input
        className="input"
        type="password"
        autoComplete={kind}
        required
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
