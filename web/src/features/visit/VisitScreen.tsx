/**
 * A visit: order at the side, the step at hand, and the glasses along the bottom edge, always
 * there.
 */
import { Suspense, useEffect, type ReactElement } from "react";
import { Link, Navigate, useNavigate, useParams, useSearchParams } from "react-router";
import { useQueryClient } from "@tanstack/react-query";

import { useChangeVisit, useVisit } from "../../api/hooks";
import type { VisitView } from "../../api/types";
import { Head, Ledge } from "../../app/Shell";
import { chooseUnits, ShownUnits, type Units } from "../../app/units";
import { listed, SOURCE_NAMES, STEPS, type Step } from "../../app/names";
import { Glass } from "../../glass/Glass";
import { Boundary, part } from "../../ui/Boundary";
import { gone, Stale } from "../../ui/Stale";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Before } from "../before/Before";
import { Meaning } from "../meaning/Meaning";
import { useTurnKey } from "../showing/useTurnKey";
import { Test } from "../testing/Test";
import { TimerRings } from "../testing/TimerRings";
import { Context, type VisitContext } from "./context";
import { useContextOf } from "./useContextOf";
import { DrawGlass } from "./DrawGlass";
import { GlassMenu } from "./GlassMenu";
import { Notices } from "./Notices";
import { TwoGlasses } from "./TwoGlasses";
import { Order, type Missing } from "./Order";
import { say } from "../../app/language";

const Line = part(() => import("../treating/Line").then((m) => m.Line));
const Show = part(() => import("../showing/Show").then((m) => m.Show));
const Compare = part(() => import("../comparing/Compare").then((m) => m.Compare));
const OfferStep = part(() => import("../proposing/OfferStep").then((m) => m.OfferStep));

const isStep = (s: string | undefined): s is Step => STEPS.some(([k]) => k === s);

function doneSteps(v: VisitView): Set<Step> {
  const done = new Set<Step>();
  if (v.visit.home.name && v.visit.complaints.length + v.visit.samples.length > 0)
    done.add("before");
  if (v.assessment.raw && Object.keys(v.assessment.raw.values).length >= 5) done.add("test");
  if (v.assessment.meaning && v.assessment.meaning.unexplained.length === 0 && done.has("test"))
    done.add("meaning");
  if (v.visit.demonstrations.some((d) => !d.struck_at)) done.add("show");
  if (v.visit.options.length > 0) done.add("line");
  if (v.visit.recommended) done.add("compare");
  if (v.visit.proposals.length > 0) done.add("offer");
  return done;
}

function missingTests(v: VisitView): Missing[] {
  return (v.assessment.meaning?.unknown ?? [])
    .slice(0, 3)
    .map((u) => ({ name: u.name, why: u.why || u.test }));
}

function Counter({ c }: { c: VisitContext }): ReactElement {
  return (
    <>
      {c.view.visit.samples.map((s) => {
        const l = c.lookOf(s);
        const n = Object.keys(c.valuesOf(s)).length;
        const on = s.id === c.picked?.id;
        return (
          <button key={s.id} className="stand" aria-pressed={on} onClick={() => c.pick(s.id)}>
            <Glass look={l} h={112} label={s.name} pick={pickOf(c, s.id)} />
            <span className="nm">
              {s.name}
              <small>
                {n === 0
                  ? say("nothing tested yet")
                  : `${s.raw ? "raw" : s.after || s.place} · ${testsOf(n)}`}
              </small>
            </span>
          </button>
        );
      })}
    </>
  );
}

const MOST_NAMED = 2;

/** The glasses, small, with their names beside; of many only the picked one is named. */
function Tokens({ c }: { c: VisitContext }): ReactElement {
  const many = c.view.visit.samples.length > MOST_NAMED;
  return (
    <>
      {c.view.visit.samples.map((s) => {
        const n = Object.keys(c.valuesOf(s)).length;
        const on = s.id === c.picked?.id;
        const tests = n === 0 ? say("nothing tested yet") : testsOf(n);
        return (
          <button
            key={s.id}
            className="token"
            aria-pressed={on}
            title={s.name}
            onClick={() => c.pick(s.id)}
          >
            <Glass look={c.lookOf(s)} h={44} label={s.name} pick={pickOf(c, s.id)} />
            <span className={many && !on ? "sr-only" : ""}>
              {s.name}
              <small>{n === 0 ? tests : `${s.raw ? "raw" : s.after || s.place} · ${tests}`}</small>
            </span>
          </button>
        );
      })}
    </>
  );
}

/** The counter at work: the glasses as tokens, and room at its end for the step's own key. */
function WorkLedge({ c, step }: { c: VisitContext; step: Step }): ReactElement {
  const inset = step === "test" ? "pl-[224px] wide:pl-[460px]" : "wide:pl-[252px]";
  return (
    <section aria-label={say("The counter")}>
      <div className="ledge">
        <div className="face" />
      </div>
      <div className={`tokens ${inset}`}>
        <div className="row">
          <Tokens c={c} />
        </div>
        {c.view.visit.samples.length === 0 && (
          <p className="text-m text-ink-2 min-w-0">
            {say("No glass drawn yet. Draw one ahead of all treatment: it is the raw sample.")}
          </p>
        )}
        {step !== "offer" && (
          <>
            <DrawGlass />
            <GlassMenu />
          </>
        )}
        {(step === "test" || step === "offer") && (
          <span className="w-[200px] wide:w-[236px] shrink-0 ml-auto" />
        )}
      </div>
    </section>
  );
}

function StepBody({ step }: { step: Step }): ReactElement {
  switch (step) {
    case "before":
      return <Before />;
    case "test":
      return <Test />;
    case "meaning":
      return <Meaning />;
    case "show":
      return <Show />;
    case "line":
      return <Line />;
    case "compare":
      return <Compare />;
    case "offer":
      return <OfferStep />;
  }
}

const UNITS: Record<string, string> = { us: "US", metric: "metric" };

function UnitsKey({
  units,
  onUnits,
}: {
  units: string;
  onUnits: (u: Units) => void;
}): ReactElement {
  const other = units === "us" ? "metric" : "us";
  return (
    <button
      className="min-h-11 px-2 text-s leading-tight font-semibold underline underline-offset-4"
      aria-label={say("{x} units. Show {x2} units", { x: UNITS[units] ?? units, x2: UNITS[other] })}
      onClick={() => onUnits(other)}
    >
      {units === "us" ? say("US units") : say("metric units")}
    </button>
  );
}

const WIDE: ReadonlySet<Step> = new Set(["line", "compare"]);

/** The step one is at is remembered, once for each arrival at it. */
function useRemembered(id: string, step: string | undefined, view: VisitView | undefined): void {
  const { mutate, isPending } = useChangeVisit(id);
  const stored = view?.step;
  const version = view?.versions.visit;
  useEffect(() => {
    if (!isStep(step) || stored === undefined || stored === step) return;
    if (version !== undefined && !isPending) mutate({ version, step });
    // not for every change of the visit
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [step, stored === undefined]);
}

/** Whose visit it is, its timers, and what concerns the whole page. */
function VisitHead({
  view,
  id,
  turn,
}: {
  view: VisitView;
  id: string;
  turn: string;
}): ReactElement {
  const client = useQueryClient();
  const { customer, home, settings } = view.visit;
  return (
    <Head title={customer.name} sub={listed(home.name, home.place, SOURCE_NAMES[home.source])}>
      <TimerRings visit={id} />
      <Link className="key bare" to={turn} title={say("Turn the screen to the customer: T")}>
        <span className="max-[500px]:capitalize">
          <span className="max-[500px]:sr-only">{say("To the")}</span> {say("customer")}
        </span>
        <kbd className="max-[900px]:hidden" aria-hidden="true">
          T
        </kbd>
      </Link>
      <UnitsKey
        units={settings.units}
        onUnits={(u) => {
          chooseUnits(u);
          void client.invalidateQueries({ queryKey: ["visit", id] });
        }}
      />
    </Head>
  );
}

/** Which of the picked glasses one is: the first, the second beside it, or none. */
function pickOf(c: VisitContext, sample: string): 0 | 1 | 2 {
  if (sample === c.picked?.id) return 1;
  return sample === c.second?.id ? 2 : 0;
}

const testsOf = (n: number): string => (n === 1 ? say("1 test") : say("{n} tests", { n }));

/** What stands under the names of the steps. */
function subOf(view: VisitView): Partial<Record<Step, string>> {
  const { people, bathrooms } = view.visit.home;
  const tested = Object.keys(view.assessment.raw?.values ?? {}).length;
  const baths = bathrooms === 1 ? "bath" : "baths";
  const persons = people === 1 ? say("1 person") : say("{people} people", { people });
  return {
    before: `${persons}, ${bathrooms} ${baths}`,
    ...(tested
      ? { test: tested === 1 ? say("1 test done") : say("{tested} tests done", { tested }) }
      : {}),
  };
}

/** The step itself, or two glasses side by side over it. */
function AtStep({ step, c }: { step: Step; c: VisitContext }): ReactElement {
  const wide = WIDE.has(step);
  return (
    <main className={`flex-1 min-w-0 min-h-0 ${wide ? "relative" : "scroll"}`} key={step}>
      {!wide && <Notices view={c.view} />}
      <Boundary>
        {c.second && !wide ? (
          <TwoGlasses />
        ) : (
          <Suspense fallback={<Waiting what={say("One moment.")} />}>
            <StepBody step={step} />
          </Suspense>
        )}
      </Boundary>
    </main>
  );
}

/** The counter of a step: large where glasses are shown, small at work, none under wide tables. */
function StepLedge({ step, c }: { step: Step; c: VisitContext }): ReactElement | null {
  if (WIDE.has(step)) return null;
  if (step !== "show") return <WorkLedge c={c} step={step} />;
  return (
    <Ledge
      end={
        <>
          <GlassMenu />
          <DrawGlass />
        </>
      }
    >
      <div className="flex wide:pl-[228px]">
        <Counter c={c} />
      </div>
    </Ledge>
  );
}

function Opened({
  id,
  step,
  context,
  turn,
}: {
  id: string;
  step: Step;
  context: VisitContext;
  turn: string;
}): ReactElement {
  const [search] = useSearchParams();
  const { view } = context;
  const wide = WIDE.has(step);
  const narrow = step === "show" ? "" : "work";
  const kind = wide ? "plain" : narrow;
  return (
    <Context.Provider value={context}>
      <ShownUnits.Provider value={context.units}>
        <div className={`screen ${kind}`}>
          <VisitHead view={view} id={id} turn={turn} />
          <div className={`flex flex-col min-h-0 px-8 ${wide ? "gap-1" : "wide:flex-row gap-6"}`}>
            <Order
              visit={id}
              current={step}
              done={doneSteps(view)}
              sub={subOf(view)}
              missing={step === "test" || step === "meaning" ? missingTests(view) : []}
              search={search.size ? `?${search.toString()}` : ""}
              row={wide}
            />
            <AtStep step={step} c={context} />
          </div>
          <StepLedge step={step} c={context} />
        </div>
      </ShownUnits.Provider>
    </Context.Provider>
  );
}

/** The customer's side of this visit: the glass that is picked, and the way back. */
function turnOf(id: string, step: string | undefined, picked: string | undefined): string {
  const query = new URLSearchParams({ ...(picked ? { glass: picked } : {}), from: step ?? "test" });
  return `/visits/${id}/facing/glass?${query.toString()}`;
}

export function VisitScreen(): ReactElement {
  const { id = "", step } = useParams();
  const visit = useVisit(id);
  const navigate = useNavigate();
  const context = useContextOf(id, visit.data);
  const view = visit.data;
  useRemembered(id, step, view);
  const turn = turnOf(id, step, context?.picked?.id);
  useTurnKey(() => void navigate(turn));
  const lost = gone(visit);
  if (lost)
    return (
      <div className="p-8">
        <Trouble error={lost} again={() => void visit.refetch()} />
        <button className="key bare mt-4" onClick={() => void navigate("/")}>
          {say("Back to today")}
        </button>
      </div>
    );
  if (!view || !context) return <Waiting what={say("Opening the visit.")} />;
  if (!isStep(step))
    return <Navigate to={`/visits/${id}/${isStep(view.step) ? view.step : "before"}`} replace />;
  return (
    <>
      <Stale read={visit} />
      <Opened id={id} step={step} context={context} turn={turn} />
    </>
  );
}
