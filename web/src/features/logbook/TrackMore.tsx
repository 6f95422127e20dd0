/** How long parts really lasted against what was predicted, and what became of the proposals. */
import type { ReactElement } from "react";

import { api, data } from "../../api/client";
import { num } from "../../app/show";
import { gone } from "../../ui/Stale";
import { Trouble } from "../../ui/Trouble";
import { BehindKey, homesAre } from "./BehindKey";
import { Drifts } from "./Drifts";
import { useTrackMore, type Lasted, type Outcome } from "./hooks";
import { spoken, say } from "../../app/language";

const months = (m: number): string => say("{m} months", { m: num(m, m < 10 ? 1 : 0) });

/** Two bars on one scale: predicted open, real full. */
function Months({ l, top }: { l: Lasted; top: number }): ReactElement {
  const w = (m: number): number => (m / top) * 286;
  return (
    <svg
      viewBox="0 0 300 30"
      width="100%"
      role="img"
      aria-label={say("predicted {predicted}, lasted {lasted}", {
        predicted: months(l.predicted),
        lasted: months(l.lasted),
      })}
    >
      <rect
        x="1"
        y="2"
        width={w(l.predicted)}
        height="11"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.4"
        strokeDasharray="5 3.6"
      />
      <rect
        x="1"
        y="16"
        width={w(l.lasted)}
        height="11"
        fill="var(--yuzu)"
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
    </svg>
  );
}

function LastedRow({ l, top }: { l: Lasted; top: number }): ReactElement {
  return (
    <li
      className={
        "grid grid-cols-[1fr_220px_240px] max-[900px]:grid-cols-1 gap-x-5 items-center border-b " +
        "border-rule py-2"
      }
    >
      <b className="font-d text-l">{l.label}</b>
      <Months l={l} top={top} />
      <p className="text-m">
        {months(l.lasted)}
        {say(", predicted")} {months(l.predicted)}
        <span className="block text-ink-2">
          <BehindKey
            label={`${l.label}: ${homesAre(l.homes)}`}
            load={() => {
              const query = { label: l.label, kind: l.kind };
              return data(api.GET("/api/track/parts", { params: { query } }));
            }}
            to={(id) => `/jobs/${id}?part=care`}
          >
            {homesAre(l.homes)}
          </BehindKey>
          {l.changes === 1 ? say("1 change") : say("{changes} changes", { changes: l.changes })}
          {l.few && say(", too few to say")}
        </span>
      </p>
    </li>
  );
}

const STATES = ["accepted", "declined", "expired", "presented"] as const;
const OUTCOMES: Record<(typeof STATES)[number], string> = spoken({
  accepted: "Accepted",
  declined: "Declined",
  expired: "Ran out",
  presented: "Open",
});

function Count({ o, state }: { o: Outcome; state: (typeof STATES)[number] }): ReactElement {
  if (o[state] === 0) return <>0</>;
  return (
    <BehindKey
      label={`${OUTCOMES[state]}, ${o.quarter}: ${o[state]}`}
      load={() => {
        const query = { year: o.year, quarter: o.of_year, state };
        return data(api.GET("/api/track/proposals", { params: { query } }));
      }}
      to={(id) => `/proposals/${id}`}
    >
      {o[state]}
    </BehindKey>
  );
}

function Outcomes({ lines }: { lines: readonly Outcome[] }): ReactElement {
  return (
    <table className="w-full text-m">
      <thead>
        <tr className="text-left border-b-[1.5px] border-ink">
          <th className="py-2">{say("Written in")}</th>
          {STATES.map((state) => (
            <th key={state} className="text-right">
              {OUTCOMES[state]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map((o) => (
          <tr key={o.quarter} className="border-b border-rule num">
            <th scope="row" className="text-left font-normal py-2">
              {o.quarter}
            </th>
            {STATES.map((state) => (
              <td key={state} className="text-right">
                <Count o={o} state={state} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export function TrackMore(): ReactElement | null {
  const more = useTrackMore();
  const m = more.data;
  if (gone(more)) return <Trouble error={more.error} again={() => void more.refetch()} />;
  if (!m) return null;
  const top = Math.max(1, ...m.lasted.flatMap((l) => [l.predicted, l.lasted]));
  return (
    <div
      className={
        "max-w-[1180px] mx-auto grid grid-cols-[1fr_400px] max-[900px]:grid-cols-1 gap-x-12 " +
        "pt-6"
      }
    >
      <div>
        <section aria-label={say("How long parts lasted")}>
          <h2>{say("How long parts really lasted")}</h2>
          <p className="text-m text-ink-2 py-1">
            {say("Dashed: predicted for the home. Full: from change to change, the middle one.")}
          </p>
          {m.lasted.length === 0 && (
            <p className="py-3 text-l">{say("Nothing was changed yet.")}</p>
          )}
          <ul>
            {m.lasted.map((l) => (
              <LastedRow key={l.label + l.kind} l={l} top={top} />
            ))}
          </ul>
        </section>
        <Drifts />
      </div>
      <section aria-label={say("Proposals by outcome")}>
        <h2>{say("Proposals by outcome")}</h2>
        {m.outcomes.length === 0 ? (
          <p>{say("None was presented yet.")}</p>
        ) : (
          <Outcomes lines={m.outcomes} />
        )}
      </section>
    </div>
  );
}
