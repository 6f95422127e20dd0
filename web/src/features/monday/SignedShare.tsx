/** How many of the proposals decided this month were signed; and why the others were not. */
import type { ReactElement } from "react";

import { say } from "../../app/language";
import { partOf, type Monday } from "./hooks";

const FEW = 5;

export function SignedShare({ m }: { m: Monday }): ReactElement {
  const decided = partOf(m, "decided");
  const signed = decided.rows.filter((r) => r.what !== "declined").length;
  const share = decided.many === 0 ? 0 : signed / decided.many;
  const top = 74 - 62 * share;
  const reasons = new Map<string, number>();
  for (const r of partOf(m, "declined").rows) reasons.set(r.what, (reasons.get(r.what) ?? 0) + 1);
  return (
    <section aria-label={say("Signed and declined")} className="grid grid-cols-[84px_1fr] gap-4">
      <svg
        viewBox="0 0 60 80"
        width="84"
        role="img"
        aria-label={say("{signed} of {many} signed", { signed, many: decided.many })}
      >
        <path d="M6,4 L12,76 H48 L54,4" fill="none" stroke="var(--ink)" strokeWidth="2" />
        {share > 0 && (
          <path
            d={`M${12 - 5 * share},${top} L12.5,74 H47.5 L${48 + 5 * share},${top} Z`}
            fill="var(--leaf)"
          />
        )}
      </svg>
      <div>
        <h2>{say("{signed} of {many} signed", { signed, many: decided.many })}</h2>
        {decided.many < FEW && (
          <p className="text-m text-ink-2">{say("Too few this month to say anything.")}</p>
        )}
        <ul className="list-disc pl-5 text-b">
          {[...reasons].map(([why, many]) => (
            <li key={why}>
              {why}
              {many > 1 && ` (${many})`}
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
