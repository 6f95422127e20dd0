/** What the readings explain so far: the customer's own words first. */
import type { ReactElement } from "react";

import type { Finding } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

export function Explains(): ReactElement {
  const { view } = useVisitContext();
  const m = view.assessment.meaning;
  const noticed = new Set(view.assessment.noticed.map((c) => c.id));
  const complaints = [...view.visit.complaints, ...view.assessment.noticed];
  const by = (id: string): Finding[] => m?.findings.filter((f) => f.explains.includes(id)) ?? [];
  const tds = m?.findings.find((f) => f.analyte === "tds");
  return (
    <aside className="w-full" aria-label={say("What it explains so far")}>
      <h2 className="mb-3">{say("What it explains so far")}</h2>
      {complaints.length === 0 && (
        <p className="text-ink-2 text-m mb-3">
          {say("No complaint written down. Ask what bothers them.")}
        </p>
      )}
      <ul>
        {complaints.map((c) => {
          const found = by(c.id);
          const next = m?.unexplained.find((u) => u.complaint === c.id)?.next;
          return (
            <li key={c.id} className="pb-3 mb-3 border-b border-rule">
              {noticed.has(c.id) ? (
                <b className="font-d font-semibold text-b leading-tight block">{c.words}</b>
              ) : (
                <q className="font-d font-semibold text-l leading-tight block">{c.words}</q>
              )}
              {found.map((f) => (
                <p key={f.id} className="flex gap-2 text-m text-ink-2 mt-1">
                  <StateMark kind="done" size={16} label="explained" />
                  <span>{f.sentence}</span>
                </p>
              ))}
              {found.length === 0 && (
                <p className="flex gap-2 text-m text-ink-2 mt-1">
                  <StateMark kind="unk" size={16} />
                  <span>
                    {say("not explained yet.")}
                    {next !== undefined && say(" Next: {next}.", { next })}
                  </span>
                </p>
              )}
            </li>
          );
        })}
      </ul>
      {tds && !tds.explains.length && <p className="text-s text-ink-2">{tds.sentence}</p>}
      {view.assessment.crosschecks.map((x) => (
        <p key={`${x.id}${x.sample}`} className="flex gap-2 text-m mt-3">
          <StateMark kind="no" size={16} />
          <span>
            <b>{x.sentence}</b> {x.remedy}
          </span>
        </p>
      ))}
    </aside>
  );
}
