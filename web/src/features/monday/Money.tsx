/** What was sold this month by whom, and what is owed and received, as bars on one scale. */
import type { ReactElement } from "react";

import { say } from "../../app/language";
import { money } from "../../app/show";
import type { Monday, Row } from "./hooks";
import { partOf } from "./hooks";

const sum = (rows: Row[]): number => rows.reduce((a, r) => a + Number(r.amount ?? 0), 0);

interface Bar {
  name: string;
  amount: number;
  fill: string;
  note: string;
}

function Bars({ bars, currency }: { bars: Bar[]; currency: string }): ReactElement {
  const most = Math.max(1, ...bars.map((b) => Math.abs(b.amount)));
  return (
    <ul>
      {bars.map((b) => (
        <li key={b.name} className="grid grid-cols-[150px_1fr_150px] gap-3 items-center min-h-11">
          <span className="text-b">{b.name}</span>
          <svg
            width="100%"
            height="20"
            role="img"
            aria-label={`${b.name}: ${money(b.amount, currency)}`}
          >
            <rect
              x="0"
              y="1"
              width={`${(Math.abs(b.amount) / most) * 100}%`}
              height="18"
              fill={b.fill}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
          </svg>
          <span className="text-right">
            <b className="num">{money(b.amount, currency)}</b>
            {b.note !== "" && <span className="block text-s text-ink-2">{b.note}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** A bar a consultant: what they sold, and what they took off. */
function sellers(m: Monday): Bar[] {
  const sold = partOf(m, "sold").rows;
  const off = partOf(m, "discounts").rows;
  const currency = sold[0]?.currency ?? "";
  return [...new Set(sold.map((r) => r.person))].map((name) => {
    const own = sold.filter((r) => r.person === name);
    const taken = sum(off.filter((r) => r.person === name));
    const many = own.length === 1 ? say("1 sale") : say("{n} sales", { n: own.length });
    const less = taken > 0 ? say(", {taken} taken off", { taken: money(taken, currency) }) : "";
    return { name, amount: sum(own), fill: "var(--leaf)", note: many + less };
  });
}

export function MonthMoney({ m }: { m: Monday }): ReactElement {
  const owed = partOf(m, "owed");
  const received = partOf(m, "received");
  const currency = [...partOf(m, "sold").rows, ...owed.rows].find((r) => r.currency)?.currency;
  const flows: Bar[] = [
    { name: say("Due this month"), amount: sum(owed.rows), fill: "var(--water-3)", note: "" },
    { name: say("Received"), amount: sum(received.rows), fill: "var(--yuzu)", note: "" },
  ];
  return (
    <section aria-label={say("Sold this month")}>
      <h2>{say("Sold this month")}</h2>
      {partOf(m, "sold").many === 0 && <p className="text-b py-2">{say("Nothing yet.")}</p>}
      <Bars bars={[...sellers(m), ...flows]} currency={currency ?? "$"} />
    </section>
  );
}
