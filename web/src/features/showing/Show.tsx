/** Show: what can be demonstrated with this water, what was shown, and what is not offered. The consultant's side. */
import type { ReactElement } from "react";
import { Link } from "react-router";

import { useDemonstrations } from "../../api/hooks";
import type { VisitView } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { Waiting } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";

/** What a demonstration still lacks in this visit; empty when it can be shown. */
function lacks(kind: string, v: VisitView): string {
  const samples = v.visit.samples;
  const values = v.assessment.raw?.values ?? {};
  if (kind === "through") return v.visit.options.length ? "" : "design a line first";
  if (!samples.length) return "draw a glass first";
  if (kind === "side_by_side" && !v.assessment.samples.some((s) => s.water.values.tds))
    return "measure dissolved matter first";
  if (kind === "kettle" && !values.hardness && !values.calcium) return "measure hardness first";
  if (kind === "distilling" && !values.tds) return "measure dissolved matter first";
  if (kind === "tasting" && samples.length < 2) return "draw a second water";
  if (kind === "chlorine" && !values.chlorine_free && !values.chlorine_total)
    return "measure chlorine first";
  return "";
}

function PourSheet(): ReactElement | null {
  const { view } = useVisitContext();
  const running = view.visit.demonstrations.filter((d) => d.body.kind === "tasting").at(-1);
  if (running?.body.kind !== "tasting" || running.body.shown_at) return null;
  const name = (id: string): string => view.visit.samples.find((s) => s.id === id)?.name ?? "";
  return (
    <section className="border-[1.5px] border-ink bg-slip p-4" aria-label="Pour sheet">
      <h2>Pour sheet: for your eyes only</h2>
      <p className="text-m text-ink-2 mb-2">Mark the glasses out of sight, then turn the screen.</p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 text-l">
        {running.body.waters.map((w) => (
          <div key={w.code} className="contents">
            <dt className="font-semibold num">{w.code}</dt>
            <dd className="m-0">{name(w.sample)}</dd>
          </div>
        ))}
      </dl>
      <ul className="text-m mt-2">
        {running.body.tasters.map((t) => (
          <li key={t.name}>
            <b>{t.name}</b>: {t.order.join(", ")}
            {t.ranks && ", ranked"}
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Show(): ReactElement {
  const { id, view, picked } = useVisitContext();
  const words = useDemonstrations();
  if (!words.data) return <Waiting what="One moment." />;
  const glass = picked ? `glass=${picked.id}&` : "";
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_320px] gap-x-10 gap-y-6 pb-6 pr-3">
      <section aria-labelledby="show-title">
        <h1 id="show-title" className="mb-1">
          Show them their own water
        </h1>
        <p className="text-ink-2 mb-3">
          Each opens facing the customer: large, without prices or notes. <kbd>T</kbd> or one touch
          turns it back.
        </p>
        <ul>
          {words.data.offered.map((a) => {
            const made = view.visit.demonstrations.filter((d) => d.body.kind === a.id).at(-1);
            const out = view.assessment.demonstrations.find((s) => s.id === made?.id);
            const missing = lacks(a.id, view);
            return (
              <li key={a.id} className="flex gap-4 items-center border-b border-rule py-[5px]">
                <span className="flex-1 min-w-0">
                  <b className="font-d text-l flex gap-2 items-center">
                    {made && (
                      <StateMark kind={out?.refused ? "no" : "done"} size={18} label="shown" />
                    )}
                    {a.name}
                    {made?.simulated && (
                      <span className="font-t font-normal text-s border border-dashed border-ink px-2">
                        simulated
                      </span>
                    )}
                  </b>
                  <span className="block text-m text-ink-2">
                    {missing || out?.refused || out?.sentences[0] || a.shows}
                  </span>
                </span>
                <Link
                  className="key shrink-0"
                  aria-label={`${made && a.id !== "glass" ? "Show again" : "Show"}: ${a.name}`}
                  to={`/visits/${id}/facing/${a.id}?${glass}from=show`}
                >
                  {made && a.id !== "glass" ? "Show again" : "Show"}
                </Link>
              </li>
            );
          })}
        </ul>
      </section>
      <aside className="grid gap-6 content-start">
        <PourSheet />
        <section aria-labelledby="not-title">
          <h2 id="not-title" className="mb-2">
            Not offered, and why
          </h2>
          <ul>
            {words.data.not_offered.map((n) => (
              <li key={n.name} className="mb-3 text-m">
                <b className="block">{n.name}</b>
                <span className="text-ink-2">{n.why}</span>
              </li>
            ))}
          </ul>
        </section>
      </aside>
    </div>
  );
}
