/** Laboratory results that are kept, and struck with a reason. */
import { type ReactElement } from "react";

import { useReference, useStrike } from "../../api/hooks";
import { best } from "../../app/show";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

function certifiedOf(certified: boolean | null | undefined): string {
  if (certified == null) return say("certified or not: not known");
  return certified ? say("certified for it") : say("not certified for it");
}

/** What was kept of reports on this glass, each with where it comes from, and a way back. */
export function KeptResults(): ReactElement | null {
  const { id, picked, readingsOf, view, units } = useVisitContext();
  const names = useReference().data?.analytes ?? [];
  const strike = useStrike(id);
  const values = new Map(
    view.assessment.samples.flatMap((s) => s.readings.map((r) => [r.id, r.value] as const)),
  );
  const kept = (picked ? readingsOf(picked) : []).filter(
    (r) => r.observation.method === "laboratory",
  );
  if (kept.length === 0) return null;
  return (
    <section aria-labelledby="kept-results">
      <h2 id="kept-results">{say("Kept for {name}", { name: picked?.name })}</h2>
      <ul>
        {kept.map((r) => {
          const o = r.observation;
          const v = values.get(r.id);
          if (o.method !== "laboratory") return null;
          return (
            <li key={r.id} className="flex gap-3 items-center border-b border-rule min-h-12">
              <span className={`flex-1 ${r.struck_at ? "line-through text-ink-3" : ""}`}>
                <b>{names.find((n) => n.id === r.analyte)?.name ?? r.analyte}</b>{" "}
                {v ? best(r.analyte, v, units) : ""}
                {o.basis ? say(", as {basis}", { basis: o.basis }) : ""} ·{" "}
                {o.laboratory || say("laboratory not named")}
                {o.report_number
                  ? say(", report {report_number}", { report_number: o.report_number })
                  : ""}
                {o.report_date ? say(" of {report_date}", { report_date: o.report_date }) : ""}
                {" · "}
                {certifiedOf(o.certified)}
              </span>
              {!r.struck_at && (
                <button
                  className="key bare"
                  onClick={() => strike.mutate({ reading: r.id, because: say("not right") })}
                >
                  {say("Strike")}
                </button>
              )}
            </li>
          );
        })}
      </ul>
      <Trouble error={strike.error} />
    </section>
  );
}
