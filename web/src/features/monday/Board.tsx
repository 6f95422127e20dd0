/** Who is where today: a line a person, from morning to evening. */
import type { ReactElement } from "react";
import { Link } from "react-router";

import { say } from "../../app/language";
import type { Part, Row } from "./hooks";

const FROM = 7;
const TO = 19;

/** The hour that a line begins with, as "09:30 visit"; none where nobody said. */
const hourOf = (r: Row): number | null => {
  const found = /^(\d\d):(\d\d) /.exec(r.what);
  return found ? Number(found[1]) + Number(found[2]) / 60 : null;
};

const placed = (r: Row): number => {
  const at = Math.min(TO - 1.5, Math.max(FROM, hourOf(r) ?? FROM));
  return ((at - FROM) / (TO - FROM)) * 100;
};

function Person({ name, rows }: { name: string; rows: Row[] }): ReactElement {
  return (
    <li className="grid grid-cols-[150px_1fr] max-[900px]:grid-cols-1 border-b border-rule py-2">
      <b className="font-d text-b pt-2">{name}</b>
      <div className="relative" style={{ height: 52 * rows.length }}>
        {rows.map((r, n) => (
          <Link
            key={r.path + r.what}
            to={r.path}
            className={
              "absolute border-l-[3px] border-ink bg-slip text-ink no-underline px-2 min-h-11 " +
              "flex flex-col justify-center text-s whitespace-nowrap hover:bg-yuzu-pale"
            }
            style={{ left: `${placed(r)}%`, top: n * 52 }}
          >
            <b>{r.what}</b>
            {r.whose}
          </Link>
        ))}
      </div>
    </li>
  );
}

export function Board({ part }: { part: Part }): ReactElement {
  const names = [...new Set(part.rows.map((r) => r.person))];
  return (
    <section aria-label={say("Who is where today")}>
      <h2>{say("Who is where today")}</h2>
      {names.length === 0 && (
        <p className="text-b py-2">{say("No visit and no job is planned for today.")}</p>
      )}
      <ul>
        {names.map((name) => (
          <Person key={name} name={name} rows={part.rows.filter((r) => r.person === name)} />
        ))}
      </ul>
      {names.length > 0 && (
        <div
          aria-hidden="true"
          className="flex justify-between text-s text-ink-3 pl-[150px] max-[900px]:pl-0"
        >
          {[7, 10, 13, 16, 19].map((h) => (
            <span key={h}>{h}:00</span>
          ))}
        </div>
      )}
    </section>
  );
}
