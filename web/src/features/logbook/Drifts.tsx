/** How the firm's instruments did in their standards: each check as a dot in its own accuracy. */
import type { ReactElement } from "react";
import { Link } from "react-router";

import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { said } from "../aftercare/dates";
import { useDrifts, type Drift } from "./hooks";
import { say } from "../../app/language";

const W = 300;
const H = 64;
const TIMES = 1.3; // the picture shows so many times the accuracy, up and down

type Check = Drift["checks"][number];

/** Errors over time; the band is what the instrument's accuracy allows. */
function Errors({ d }: { d: Drift }): ReactElement {
  const first = Date.parse(d.checks[0]?.on ?? "");
  const last = Date.parse(d.checks.at(-1)?.on ?? "");
  const errors = d.checks.map((c) => c.shown - c.standard);
  const most = Math.max(...errors.map(Math.abs), (d.allowed ?? 0) * TIMES, 1e-9);
  const x = (c: Check): number =>
    last === first ? W / 2 : 12 + ((Date.parse(c.on) - first) / (last - first)) * (W - 24);
  const y = (e: number): number => H / 2 - (e / most) * (H / 2 - 7);
  const told = d.checks
    .map((c) =>
      say("{on} {shown} in {standard}", { on: said(c.on), shown: c.shown, standard: c.standard }),
    )
    .join(", ");
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={told}>
      {d.allowed != null && (
        <rect
          x="0"
          y={y(d.allowed)}
          width={W}
          height={y(-d.allowed) - y(d.allowed)}
          fill="var(--water)"
        />
      )}
      <path d={`M0,${H / 2}H${W}`} stroke="var(--ink)" strokeWidth="1.2" />
      {d.checks.map((c) => (
        <circle
          key={c.id}
          cx={x(c)}
          cy={y(c.shown - c.standard)}
          r="5"
          fill="var(--yuzu)"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      ))}
    </svg>
  );
}

const mark = (d: Drift): "done" | "no" | "miss" => {
  if (d.within == null) return "miss";
  return d.within ? "done" : "no";
};

export function Drifts(): ReactElement {
  const drifts = useDrifts();
  const list = drifts.data ?? [];
  return (
    <section aria-label={say("Instruments’ drift")} className="pt-6">
      <h2>{say("How instruments drift")}</h2>
      <p className="text-m text-ink-2 py-1">
        {say(
          "Each dot is a check in a standard; the band is what the instrument’s own accuracy " +
            "allows.",
        )}
      </p>
      <Trouble error={drifts.error} again={() => void drifts.refetch()} />
      {drifts.isSuccess && list.length === 0 && (
        <p className="py-3">
          {say("None was checked in a standard yet.")}{" "}
          <Link to="/firm#kits">{say("Kits and meters")}</Link>
        </p>
      )}
      <ul>
        {list.map((d) => (
          <li
            key={d.key}
            className={
              "grid grid-cols-[1fr_300px] max-[900px]:grid-cols-1 gap-x-5 items-center border-b " +
              "border-rule py-2"
            }
          >
            <span>
              <b className="font-d text-l flex gap-2 items-center">
                <StateMark kind={mark(d)} size={17} />
                {d.name}
              </b>
              <span className="block text-m">{d.sentence}</span>
              <span className="block text-m text-ink-2">
                {d.checks.length === 1
                  ? say("1 check")
                  : say("{length} checks", { length: d.checks.length })}
                {d.few && say(": too few to say how it drifts")}
              </span>
            </span>
            <Errors d={d} />
          </li>
        ))}
      </ul>
    </section>
  );
}
