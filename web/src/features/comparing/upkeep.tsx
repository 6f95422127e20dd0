/** What an option asks of its household: chores in a year, and needs of the home and the water. */
import type { ReactElement } from "react";

import type { ComparedOption } from "../../api/types";
import { num, often, workTime, yearly } from "../../app/show";
import { STATUS_MARK, StateMark } from "../../ui/marks";
import { Opens } from "../../ui/Slip";
import { YearStrip } from "./pictures";
import { spoken, say } from "../../app/language";

export function Chores({ o }: { o: ComparedOption }): ReactElement {
  const c = o.chores;
  if (!c || c.chores.length === 0) return <span className="text-b text-ink-2">{say("none")}</span>;
  const changes = c.chores.filter((x) => !x.bags).reduce((a, x) => a + x.times_year, 0);
  return (
    <div>
      <YearStrip strip={c.strip} />
      <Opens
        title={say("{name}: the work in a year", { name: o.name })}
        className="text-s leading-tight"
        slip={
          <ul className="grid gap-1 text-m">
            {c.chores.map((x, i) => (
              <li key={i} className="flex justify-between gap-3 border-b border-rule pb-1">
                <span>
                  {x.label}
                  {x.own ? "" : say(" (the firm)")}
                </span>
                <span className="whitespace-nowrap">
                  {say("{times_year}, {minutes_year} min", {
                    times_year: often(x.times_year),
                    minutes_year: num(x.minutes_year),
                  })}
                </span>
              </li>
            ))}
          </ul>
        }
      >
        {say("{x}{x2}{own_minutes} of your own", {
          x: c.bags > 0 ? `${yearly(c.bags, "bag of salt", "bags of salt")}, ` : "",
          x2: changes > 0 ? `${yearly(changes, "change")}, ` : "",
          own_minutes: workTime(c.own_minutes),
        })}
      </Opens>
    </div>
  );
}

const NEED: Record<string, string> = spoken({
  stop: "stopped",
  unknown: "not known",
  warn: "to watch",
});

export function Needs({ o }: { o: ComparedOption }): ReactElement {
  if (o.error !== "") return <span className="text-s text-zest-ink">{o.error}</span>;
  if (Number(o.bought) === 0 && o.needs.length === 0)
    return <span className="text-b text-ink-2">{say("none")}</span>;
  if (o.needs.length === 0)
    return (
      <span className="flex gap-1 items-center text-b">
        <StateMark kind="done" size={16} />
        {say("all met")}
      </span>
    );
  const counts = ["stop", "unknown", "warn"]
    .map((k) => [k, o.needs.filter((n) => n.status === k).length] as const)
    .filter(([, n]) => n > 0);
  return (
    <Opens
      title={say("{name}: needs in this home", { name: o.name })}
      className="text-m text-left justify-self-start self-start"
      slip={
        <ul className="grid gap-2 text-m">
          {o.needs.map((n, i) => (
            <li key={i} className="flex gap-2 items-start">
              <StateMark kind={STATUS_MARK[n.status]!} size={17} label={NEED[n.status]} />
              <span>
                <b>{n.stage}</b>: {n.sentence}
              </span>
            </li>
          ))}
        </ul>
      }
    >
      {counts.map(([k, n]) => `${n} ${NEED[k]!}`).join(", ")}
    </Opens>
  );
}
