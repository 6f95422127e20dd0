/** Which stage of a considered line, or which unit of ours, a glass is drawn behind. */
import type { ReactElement } from "react";

import { useVisitContext } from "./context";
import { say } from "../../app/language";

export function OneOfOurs({
  value,
  busy = false,
  onChoose,
}: {
  value: string | null;
  busy?: boolean;
  onChoose: (item: string | null, name: string) => void;
}): ReactElement | null {
  const items = useVisitContext().view.visit.catalogue;
  if (items.length === 0 && value === null) return null;
  const known = value === null || items.some((i) => i.code === value);
  return (
    <label className="field">
      <span>{say("Which of ours it is")}</span>
      <select
        className="input"
        value={value ?? ""}
        disabled={busy}
        onChange={(e) => {
          const code = e.target.value || null;
          onChoose(code, items.find((i) => i.code === code)?.name ?? "");
        }}
      >
        <option value="">{say("none of ours")}</option>
        {!known && <option value={value}>{value}</option>}
        {items.map((i) => (
          <option key={i.code} value={i.code}>
            {i.name}
          </option>
        ))}
      </select>
    </label>
  );
}
