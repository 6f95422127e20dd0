/** Offer: what is recommended and why; the tool writes the first draft. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useNavigate } from "react-router";

import { api, data } from "../../api/client";
import { newId } from "../../app/names";
import { money } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { AtLedgeEnd } from "../testing/OnTheLedge";
import { useVisitContext } from "../visit/context";

const STATE_WORDS: Record<string, string> = {
  draft: "draft",
  presented: "presented",
  accepted: "accepted",
  declined: "declined",
  expired: "expired",
};

type Assessed = ReturnType<typeof useVisitContext>["view"]["assessment"]["options"][number];

interface Stop {
  stage: string;
  sentence: string;
}

/** What stops a line, each sentence once. */
function stopsOf(o: Assessed | undefined): Stop[] {
  const every = [
    ...(o?.line?.stages ?? []).flatMap((s) => s.checks.map((c) => ({ c, stage: s.name }))),
    ...(o?.line?.checks ?? []).map((c) => ({ c, stage: "The whole line" })),
  ];
  const found = new Map<string, Stop>();
  for (const { c, stage } of every)
    if (c.status === "stop" && !found.has(c.sentence))
      found.set(c.sentence, { stage, sentence: c.sentence });
  return [...found.values()];
}

const ANSWER_AT_LEAST = 12;

/** A line with a stop is proposed only with an answer to each, which the customer reads too. */
function AnswerStops({
  stops,
  answers,
  onAnswer,
}: {
  stops: Stop[];
  answers: Record<string, string>;
  onAnswer: (sentence: string, text: string) => void;
}): ReactElement | null {
  if (stops.length === 0) return null;
  return (
    <section className="border-[2.5px] border-zest bg-slip p-4 mb-4">
      <h2>How is this answered?</h2>
      <p className="text-m text-ink-2 mb-2">
        This line cannot work as it stands. Write for each stop what is done about it; the customer
        reads it before signing.
      </p>
      {stops.map((s) => (
        <label key={s.sentence} className="field mb-2">
          <span>
            <b>{s.stage}:</b> {s.sentence}
          </span>
          <textarea
            className="input"
            style={{ minHeight: 72, fontSize: 16 }}
            maxLength={2000}
            value={answers[s.sentence] ?? ""}
            onChange={(e) => onAnswer(s.sentence, e.target.value)}
          />
        </label>
      ))}
    </section>
  );
}

export function OfferStep(): ReactElement {
  const { id, view } = useVisitContext();
  const navigate = useNavigate();
  const client = useQueryClient();
  const options = view.assessment.options;
  const earlier = view.visit.proposals;
  const [recommended, setRecommended] = useState(
    view.visit.recommended ?? (view.assessment.nothing_needed ? "today" : ""),
  );
  const [own, setOwn] = useState<{ for: string; text: string } | null>(null);
  const [withPlan, setWithPlan] = useState(false);
  const [plan, setPlan] = useState({ down: "0", monthly: "", months: "24" });
  const [proposal] = useState(newId);
  const [terms, setTerms] = useState({ discount: "", deposit: "", exempt: false });
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const stops = stopsOf(options.find((o) => o.id === recommended));
  const answered = stops.every((s) => (answers[s.sentence] ?? "").trim().length >= ANSWER_AT_LEAST);
  const draft = useQuery({
    queryKey: ["visit", id, "draft", recommended],
    enabled: recommended !== "",
    queryFn: () =>
      data(api.GET("/api/visits/{id}/draft", { params: { path: { id }, query: { recommended } } })),
  });
  const last = earlier[earlier.length - 1];
  const kept = last && last.recommended === recommended ? last.reasons : undefined;
  const text = own && own.for === recommended ? own.text : (kept ?? draft.data?.reasons ?? "");
  const write = useMutation({
    mutationFn: () =>
      data(
        api.POST("/api/visits/{id}/proposals", {
          params: { path: { id } },
          body: {
            id: proposal,
            recommended,
            reasons: text,
            plan: withPlan
              ? { down: plan.down || "0", monthly: plan.monthly, months: Number(plan.months) }
              : null,
            terms: {
              discount: terms.discount || "0",
              deposit: terms.deposit || "0",
              tax_exempt: terms.exempt,
            },
            answers: Object.fromEntries(stops.map((s) => [s.sentence, answers[s.sentence] ?? ""])),
          },
        }),
      ),
    onSuccess: (p) => {
      void client.invalidateQueries({ queryKey: ["visit", id] });
      void client.invalidateQueries({ queryKey: ["visits"] });
      void navigate(`/proposals/${p.id}`);
    },
  });
  const currency = view.visit.settings.currency;
  if (!view.assessment.raw)
    return (
      <div className="pt-2">
        <h1>Offer</h1>
        <p className="text-l mt-2">A proposal stands on readings. Test the raw sample first.</p>
      </div>
    );
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_320px] gap-x-10 gap-y-6 pb-8 pr-3">
      <section>
        <h1 className="mb-3">What you recommend, and why</h1>
        <div role="radiogroup" aria-label="Recommended" className="grid gap-2 mb-5">
          {options.map((o, i) => {
            const stops = !o.line || stopsOf(o).length > 0;
            const price =
              o.line?.purchases.reduce((a, p) => a + Number(p.price) + Number(p.installation), 0) ??
              0;
            const on = recommended === o.id;
            return (
              <button
                key={o.id}
                role="radio"
                aria-checked={on}
                disabled={!o.line}
                className="key justify-start text-left whitespace-normal py-2"
                style={{
                  justifyContent: "flex-start",
                  ...(on ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
                }}
                onClick={() => setRecommended(o.id)}
              >
                <span className="num w-8">{i === 0 ? "–" : String.fromCharCode(64 + i)}</span>
                <span className="flex-1">
                  {i === 0 ? "Nothing needed: buy nothing" : o.name}
                  {stops && (
                    <span className="flex gap-1 items-center font-normal text-s">
                      <StateMark kind="no" size={15} />
                      {o.line ? "cannot work as it stands" : "cannot be worked out"}
                    </span>
                  )}
                </span>
                <span className="num">{money(price, currency)}</span>
              </button>
            );
          })}
        </div>
        <AnswerStops
          stops={stops}
          answers={answers}
          onAnswer={(k, text) => setAnswers({ ...answers, [k]: text })}
        />
        {recommended !== "" && (
          <label className="field">
            <span>
              The reasons, in plain sentences{" "}
              <span className="font-normal text-ink-2">
                (a first draft from the rules that fired; change what you like)
              </span>
            </span>
            <textarea
              className="input"
              style={{ minHeight: 190, fontSize: 16, lineHeight: 1.5 }}
              maxLength={8000}
              value={text}
              onChange={(e) => setOwn({ for: recommended, text: e.target.value })}
            />
          </label>
        )}
        <Trouble error={draft.error ?? write.error} />
        {recommended !== "" && recommended !== "today" && (
          <div className="flex flex-wrap gap-4 items-end mt-2">
            {(
              [
                ["discount", "Discount"],
                ["deposit", "Deposit"],
              ] as const
            ).map(([k, name]) => (
              <label key={k} className="field w-[170px]">
                <span>
                  {name} [{currency}]
                </span>
                <input
                  className="input"
                  inputMode="decimal"
                  value={terms[k]}
                  onChange={(e) => setTerms({ ...terms, [k]: e.target.value })}
                />
              </label>
            ))}
            <label className="flex gap-3 items-center min-h-12">
              <input
                type="checkbox"
                className="w-6 h-6"
                checked={terms.exempt}
                onChange={(e) => setTerms({ ...terms, exempt: e.target.checked })}
              />
              Exempt from sales tax
            </label>
          </div>
        )}
        <label className="flex gap-3 items-center min-h-12 mt-2">
          <input
            type="checkbox"
            className="w-6 h-6"
            checked={withPlan}
            onChange={(e) => setWithPlan(e.target.checked)}
          />
          Offer a payment plan
        </label>
        {withPlan && (
          <div className="grid grid-cols-3 gap-4 max-w-[560px] mb-3">
            {(
              [
                ["down", "Down payment", currency],
                ["monthly", "Each month", currency],
                ["months", "Months", ""],
              ] as const
            ).map(([k, name, unit]) => (
              <label key={k} className="field">
                <span>
                  {name}
                  {unit && ` [${unit}]`}
                </span>
                <input
                  className="input"
                  inputMode="decimal"
                  value={plan[k]}
                  onChange={(e) => setPlan({ ...plan, [k]: e.target.value })}
                />
              </label>
            ))}
          </div>
        )}
        <AtLedgeEnd>
          <button
            className="key go"
            style={{ minHeight: 48 }}
            disabled={
              recommended === "" ||
              !answered ||
              write.isPending ||
              (withPlan && plan.monthly === "")
            }
            onClick={() => write.mutate()}
          >
            {write.isPending
              ? "Writing it"
              : earlier.length && last?.state !== "draft"
                ? "Write the next revision"
                : "Write the proposal"}
          </button>
        </AtLedgeEnd>
      </section>
      <aside className="grid gap-5 content-start">
        <div>
          <h2 className="mb-2">Written so far</h2>
          {earlier.length === 0 && (
            <p className="text-m text-ink-2">
              Nothing yet. A proposal is a snapshot: it keeps today’s figures when prices change.
            </p>
          )}
          <ul>
            {earlier.map((p) => (
              <li key={p.id} className="border-b border-rule">
                <Link
                  className="flex justify-between items-center min-h-12 text-ink"
                  to={`/proposals/${p.id}`}
                >
                  <span>
                    {p.number}, revision {p.revision}
                  </span>
                  <b>{STATE_WORDS[p.state]}</b>
                </Link>
              </li>
            ))}
          </ul>
        </div>
        <div>
          <h2 className="mb-2">The whole visit</h2>
          <a className="key" href={`/api/visits/${id}/file`} download>
            Download the visit file
          </a>
          <p className="text-s text-ink-2 mt-2">
            One JSON document with readings, lines and catalogue items; <code>./zesty assess</code>{" "}
            works the same figures out of it.
          </p>
        </div>
      </aside>
    </div>
  );
}
