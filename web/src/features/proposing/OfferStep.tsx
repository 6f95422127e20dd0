/** Offer: what is recommended and why; the tool writes the first draft. */
import { useMutation, useQueryClient, type UseMutationResult } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useNavigate } from "react-router";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { newId } from "../../app/names";
import { money } from "../../app/show";
import { dayLong } from "../../app/when";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { AtLedgeEnd } from "../testing/OnTheLedge";
import { useVisitContext } from "../visit/context";
import { NoLongerFits, Reasons, useReasons } from "./Reasons";
import { say } from "../../app/language";

const STATE_WORDS: Record<string, string> = {
  draft: "draft",
  presented: "presented",
  accepted: "accepted",
  declined: "declined",
  expired: "expired",
  withdrawn: "withdrawn",
  replaced: "replaced",
  cancelled: "cancelled",
  brought_in: "brought in",
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
    ...(o?.line?.checks ?? []).map((c) => ({ c, stage: say("The whole system") })),
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
      <h2>{say("How is this answered?")}</h2>
      <p className="text-m text-ink-2 mb-2">
        {say(
          "This system cannot work as it stands. Write for each stop what is done about it; the " +
            "customer reads it before signing.",
        )}
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

type View = ReturnType<typeof useVisitContext>["view"];
type Terms = { discount: string; deposit: string; exempt: boolean };
type Plan = { down: string; monthly: string; months: string };
type Body = components["schemas"]["ProposalBody"];

const bought = (o: Assessed): number =>
  o.line?.purchases.reduce((a, p) => a + Number(p.price) + Number(p.installation), 0) ?? 0;

const rent = (o: Assessed): number =>
  o.line?.purchases.reduce((a, p) => a + Number(p.let?.per_month ?? 0), 0) ?? 0;

/** One of the lines to recommend; the first is to buy nothing. */
function Choice({
  o,
  index,
  on,
  currency,
  onPick,
}: {
  o: Assessed;
  index: number;
  on: boolean;
  currency: string;
  onPick: () => void;
}): ReactElement {
  const stopped = !o.line || stopsOf(o).length > 0;
  return (
    <button
      role="radio"
      aria-checked={on}
      disabled={!o.line}
      className="key justify-start text-left whitespace-normal py-2"
      style={{
        justifyContent: "flex-start",
        ...(on ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
      }}
      onClick={onPick}
    >
      <span className="num w-8">{index === 0 ? "–" : String.fromCharCode(64 + index)}</span>
      <span className="flex-1">
        {index === 0 ? say("Nothing needed: buy nothing") : o.name}
        {stopped && (
          <span className="flex gap-1 items-center font-normal text-s">
            <StateMark kind="no" size={15} />
            {o.line ? say("cannot work as it stands") : say("cannot be worked out")}
          </span>
        )}
      </span>
      <span className="num text-right">
        {money(bought(o), currency)}
        {rent(o) > 0 && (
          <span className="block font-normal text-s">
            {say("{o} a month", { o: money(rent(o), currency, true) })}
          </span>
        )}
      </span>
    </button>
  );
}

function Amount({
  name,
  unit,
  value,
  onValue,
}: {
  name: string;
  unit: string;
  value: string;
  onValue: (v: string) => void;
}): ReactElement {
  return (
    <label className="field w-[170px]">
      <span>
        {name}
        {unit && ` [${unit}]`}
      </span>
      <input
        className="input"
        inputMode="decimal"
        value={value}
        onChange={(e) => onValue(e.target.value)}
      />
    </label>
  );
}

function Tick({
  words,
  on,
  onTick,
}: {
  words: string;
  on: boolean;
  onTick: (on: boolean) => void;
}): ReactElement {
  return (
    <label className="flex gap-3 items-center min-h-12">
      <input
        type="checkbox"
        className="w-6 h-6"
        checked={on}
        onChange={(e) => onTick(e.target.checked)}
      />
      {words}
    </label>
  );
}

/** Discount, deposit and exemption from tax. */
function TermsFields({
  terms,
  currency,
  onTerms,
}: {
  terms: Terms;
  currency: string;
  onTerms: (t: Terms) => void;
}): ReactElement {
  const set = (part: Partial<Terms>): void => onTerms({ ...terms, ...part });
  return (
    <div className="flex flex-wrap gap-4 items-end mt-2">
      <Amount
        name="Discount"
        unit={currency}
        value={terms.discount}
        onValue={(discount) => set({ discount })}
      />
      <Amount
        name="Deposit"
        unit={currency}
        value={terms.deposit}
        onValue={(deposit) => set({ deposit })}
      />
      <Tick
        words={say("Exempt from sales tax")}
        on={terms.exempt}
        onTick={(exempt) => set({ exempt })}
      />
    </div>
  );
}

/** Whose day's prices, taxes and limits a proposal is made by; one can take today's. */
function TermsOfDay({ id, view }: { id: string; view: View }): ReactElement {
  const client = useQueryClient();
  const take = useMutation({
    mutationFn: () =>
      data(
        api.PUT("/api/visits/{id}/terms", {
          params: { path: { id } },
          body: { version: view.versions.visit ?? 1 },
        }),
      ),
    onSettled: () => client.invalidateQueries({ queryKey: ["visit", id] }),
  });
  return (
    <div className="flex gap-4 items-center flex-wrap min-h-12 mt-2">
      <p className="text-m text-ink-2">
        {say("Prices, taxes and limits of {day}.", {
          day: dayLong(`${view.terms_on}T12:00:00`),
        })}
      </p>
      {view.terms_differ && (
        <button className="key" disabled={take.isPending} onClick={() => take.mutate()}>
          {say("Take today’s")}
        </button>
      )}
      <Trouble error={take.error} />
    </div>
  );
}

function PlanFields({
  plan,
  currency,
  onPlan,
}: {
  plan: Plan;
  currency: string;
  onPlan: (p: Plan) => void;
}): ReactElement {
  const set = (part: Partial<Plan>): void => onPlan({ ...plan, ...part });
  return (
    <div className="flex flex-wrap gap-4 mb-3">
      <Amount
        name="Down payment"
        unit={currency}
        value={plan.down}
        onValue={(down) => set({ down })}
      />
      <Amount
        name="Each month"
        unit={currency}
        value={plan.monthly}
        onValue={(monthly) => set({ monthly })}
      />
      <Amount name="Months" unit="" value={plan.months} onValue={(months) => set({ months })} />
    </div>
  );
}

/** The proposals of before, and the visit as a file. */
function Beside({ id, earlier }: { id: string; earlier: Earlier[] }): ReactElement {
  return (
    <aside className="grid gap-5 content-start">
      <div>
        <h2 className="mb-2">{say("Written so far")}</h2>
        {earlier.length === 0 && (
          <p className="text-m text-ink-2">
            {say(
              "Nothing yet. A proposal is a snapshot: it keeps today’s figures when prices change.",
            )}
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
                  {say("{number}, revision {revision}", { number: p.number, revision: p.revision })}
                </span>
                <b>{STATE_WORDS[p.state]}</b>
              </Link>
            </li>
          ))}
        </ul>
      </div>
      <div>
        <h2 className="mb-2">{say("The whole visit")}</h2>
        <a className="key" href={`/api/visits/${id}/file`} download>
          {say("Download the visit file")}
        </a>
        <p className="text-s text-ink-2 mt-2">
          {say("One JSON document with readings, systems and items;")}{" "}
          <code>{say("./zesty assess")}</code> {say("works the same figures out of it.")}
        </p>
      </div>
    </aside>
  );
}

type Earlier = View["visit"]["proposals"][number];

function bodyOf(
  proposal: string,
  recommended: string,
  reasons: string,
  plan: Plan | null,
  terms: Terms,
  answers: Body["answers"],
): Body {
  return {
    id: proposal,
    recommended,
    reasons,
    plan: plan && {
      down: plan.down || "0",
      monthly: plan.monthly,
      months: Number(plan.months),
    },
    terms: {
      discount: terms.discount || "0",
      deposit: terms.deposit || "0",
      tax_exempt: terms.exempt,
    },
    answers,
  };
}

function useWrite(id: string): UseMutationResult<{ id: string }, Error, Body> {
  const client = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: (body: Body) =>
      data(api.POST("/api/visits/{id}/proposals", { params: { path: { id } }, body })),
    onSuccess: (p) => {
      void client.invalidateQueries({ queryKey: ["visit", id] });
      void client.invalidateQueries({ queryKey: ["visits"] });
      void navigate(`/proposals/${p.id}`);
    },
  });
}

const named = (pending: boolean, last: Earlier | undefined): string => {
  if (pending) return say("Writing it");
  return last && last.state !== "draft"
    ? say("Write the next revision")
    : say("Write the proposal");
};

export function OfferStep(): ReactElement {
  const { id, view } = useVisitContext();
  if (view.assessment.raw) return <Writing id={id} view={view} />;
  return (
    <div className="pt-2">
      <h1>{say("Offer")}</h1>
      <p className="text-l mt-2">
        {say("A proposal stands on readings. Test the raw sample first.")}
      </p>
    </div>
  );
}

function Writing({ id, view }: { id: string; view: View }): ReactElement {
  const options = view.assessment.options;
  const earlier = view.visit.proposals;
  const last = earlier[earlier.length - 1];
  const currency = view.visit.settings.currency;
  const [recommended, setRecommended] = useState(
    view.visit.recommended ?? (view.assessment.nothing_needed ? "today" : ""),
  );
  const [withPlan, setWithPlan] = useState(false);
  const [plan, setPlan] = useState<Plan>({ down: "0", monthly: "", months: "24" });
  const [proposal] = useState(newId);
  const [terms, setTerms] = useState<Terms>({ discount: "", deposit: "", exempt: false });
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const stops = stopsOf(options.find((o) => o.id === recommended));
  const answered = stops.every((s) => (answers[s.sentence] ?? "").trim().length >= ANSWER_AT_LEAST);
  const reasons = useReasons(id, recommended);
  const write = useWrite(id);
  const ready = recommended !== "" && answered && !(withPlan && plan.monthly === "");
  const send = (): void => {
    const answer = Object.fromEntries(stops.map((s) => [s.sentence, answers[s.sentence] ?? ""]));
    const kept = withPlan ? plan : null;
    write.mutate(bodyOf(proposal, recommended, reasons.text, kept, terms, answer));
  };
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_320px] gap-x-10 gap-y-6 pb-8 pr-3">
      <section>
        <h1 className="mb-3">{say("What you recommend, and why")}</h1>
        <div role="radiogroup" aria-label={say("Recommended")} className="grid gap-2 mb-5">
          {options.map((o, i) => (
            <Choice
              key={o.id}
              o={o}
              index={i}
              on={recommended === o.id}
              currency={currency}
              onPick={() => setRecommended(o.id)}
            />
          ))}
        </div>
        <AnswerStops
          stops={stops}
          answers={answers}
          onAnswer={(k, text) => setAnswers({ ...answers, [k]: text })}
        />
        <NoLongerFits reasons={reasons} />
        {recommended !== "" && <Reasons text={reasons.text} onText={reasons.type} />}
        <Trouble error={reasons.error ?? write.error} />
        {recommended !== "" && recommended !== "today" && (
          <TermsFields terms={terms} currency={currency} onTerms={setTerms} />
        )}
        <TermsOfDay id={id} view={view} />
        <Tick words={say("Offer a payment plan")} on={withPlan} onTick={setWithPlan} />
        {withPlan && <PlanFields plan={plan} currency={currency} onPlan={setPlan} />}
        <AtLedgeEnd>
          <button
            className="key go"
            style={{ minHeight: 48 }}
            disabled={!ready || write.isPending}
            onClick={send}
          >
            {named(write.isPending, last)}
          </button>
        </AtLedgeEnd>
      </section>
      <Beside id={id} earlier={earlier} />
    </div>
  );
}
