/** What went wrong, what is safe, what to do. */
import type { ReactElement } from "react";

import { problemOf } from "../api/client";
import { StateMark } from "./marks";
import { Prove } from "./Prove";
import { say } from "../app/language";

export function Trouble({
  error,
  again,
}: {
  error: unknown;
  again?: () => void;
}): ReactElement | null {
  const p = problemOf(error);
  if (!p) return null;
  return (
    <div
      role="alert"
      className={
        "flex gap-3 items-start border-[1.5px] border-ink bg-slip p-4 rounded-[2px] " +
        "max-w-[640px]"
      }
    >
      <StateMark kind="no" size={22} />
      <div>
        <p className="font-semibold">{p.title}</p>
        {p.remedy !== "" && <p className="text-ink-2">{p.remedy}</p>}
        {p.also.length > 0 && (
          <ul className="list-disc pl-5 mt-1" aria-label={say("What else is wrong")}>
            {p.also.map((x) => (
              <li key={x.code + x.where + x.title}>
                {x.title} <span className="text-ink-2">{x.where}</span>
              </li>
            ))}
          </ul>
        )}
        {p.code === "session.prove" && <Prove again={again} />}
        {again && p.code !== "session.prove" && (
          <button className="key bare mt-1 -ml-2" onClick={again}>
            {say("Try again")}
          </button>
        )}
      </div>
    </div>
  );
}

export function Waiting({ what }: { what: string }): ReactElement {
  return (
    <p role="status" className="text-ink-2 p-8">
      {what}
    </p>
  );
}
