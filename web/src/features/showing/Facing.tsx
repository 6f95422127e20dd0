/**
 * Facing the customer: their own water, large and calm. One key or touch leads in and out; nothing
 * else leads anywhere.
 */
import { Fragment, useEffect, type ReactElement, type ReactNode } from "react";
import { Navigate, useNavigate, useParams, useSearchParams } from "react-router";

import { useVisit } from "../../api/hooks";
import type { VisitView } from "../../api/types";
import { listed } from "../../app/names";
import { Emergency } from "../../ui/Emergency";
import { gone, Stale } from "../../ui/Stale";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Context, useVisitContext } from "../visit/context";
import { useContextOf } from "../visit/useContextOf";
import { BeforeAfterView } from "./BeforeAfterView";
import { BreathView } from "./BreathView";
import { DistillingView } from "./DistillingView";
import { GlassView } from "./GlassView";
import { KettleView } from "./KettleView";
import { LatherView } from "./LatherView";
import { SideBySideView } from "./SideBySideView";
import { TastingView } from "./TastingView";
import { ThroughView } from "./ThroughView";
import { isTyping, useTurnKey } from "./useTurnKey";
import { say, useLanguage } from "../../app/language";
import { LanguageKey, useCustomersLanguage } from "../../ui/LanguageKey";

const VIEWS: Record<string, () => ReactElement> = {
  glass: () => <GlassView />,
  side_by_side: () => <SideBySideView />,
  lather: () => <LatherView />,
  colour: () => <BeforeAfterView kind="colour" />,
  chlorine: () => <BeforeAfterView kind="chlorine" />,
  kettle: () => <KettleView />,
  breath: () => <BreathView />,
  distilling: () => <DistillingView />,
  tasting: () => <TastingView />,
  through: () => <ThroughView />,
};

/** A health finding stands first on whatever faces the customer, with what to do tonight. */
function HealthFirst(): ReactElement | null {
  const { view } = useVisitContext();
  const m = view.assessment.meaning;
  const found = (m?.findings ?? []).filter((f) => f.weight === "health");
  if (!m || found.length === 0) return null;
  return (
    <section
      aria-label={say("Health first")}
      className="border-[2.5px] border-zest bg-slip p-5 mb-6 text-[20px]"
    >
      <Emergency said={m.tonight} />
      <ul className="list-disc pl-6 mt-1">
        {found.map((f) => (
          <li key={f.id} className="font-semibold">
            {f.sentence}
          </li>
        ))}
        {m.tonight.slice(1).map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
    </section>
  );
}

type Ready = VisitView["assessment"]["ready"];

/** Page Down and Page Up, or a presenter's keys, step through what can be shown. */
function usePages(visit: string, what: string, search: string, ready: Ready): void {
  const navigate = useNavigate();
  const order = ready.filter((r) => r.lacks === "").map((r) => r.id);
  const words = order.join();
  useEffect(() => {
    const on = (e: KeyboardEvent): void => {
      const step = { PageDown: 1, PageUp: -1 }[e.key];
      const all = words.split(",");
      const next = step === undefined ? undefined : all[all.indexOf(what) + step];
      if (next === undefined || isTyping(e)) return;
      e.preventDefault();
      void navigate(`/visits/${visit}/facing/${next}?${search}`, { replace: true });
    };
    document.addEventListener("keydown", on);
    return () => document.removeEventListener("keydown", on);
  }, [navigate, visit, what, search, words]);
}

function Frame({
  home,
  back,
  language,
  children,
}: {
  home: string;
  back: () => void;
  language: ReactNode;
  children: ReactNode;
}): ReactElement {
  return (
    <div
      className="facing h-[100dvh] relative overflow-hidden grid"
      style={{ gridTemplateRows: "minmax(0,1fr) 98px" }}
    >
      <main className="scroll min-h-0 px-14 max-[1099px]:px-8 pt-10 pb-4" tabIndex={-1}>
        {children}
      </main>
      <section aria-label={say("The counter")}>
        <div className="ledge">
          <div className="face" />
        </div>
        <p className="absolute left-14 max-[1099px]:left-8 bottom-[15px] text-[20px] text-ink-2">
          {home}
        </p>
        <div className="absolute right-8 bottom-[5px] flex gap-3">
          {language}
          <button className="key" onClick={back}>
            {say("Turn back")} <kbd aria-hidden="true">T</kbd>
          </button>
        </div>
      </section>
    </div>
  );
}

export function Facing(): ReactElement {
  const { id = "", what = "glass" } = useParams();
  const [search] = useSearchParams();
  const [language, choose] = useCustomersLanguage(id);
  const spoken = useLanguage();
  const visit = useVisit(id);
  const context = useContextOf(id, visit.data);
  const navigate = useNavigate();
  const glass = search.get("glass");
  const back = (): void =>
    void navigate(
      `/visits/${id}/${search.get("from") ?? "show"}${glass === null ? "" : `?glass=${glass}`}`,
      { replace: true },
    );
  useTurnKey(back, ["Escape"]);
  usePages(id, what, search.toString(), context?.view.assessment.ready ?? []);
  const ready = context !== null;
  useEffect(() => {
    document.querySelector<HTMLElement>("main")?.focus({ preventScroll: true });
  }, [what, ready]);
  const lost = gone(visit);
  if (lost)
    return (
      <div className="p-10">
        <Trouble error={lost} again={() => void visit.refetch()} />
        <button className="key mt-4" onClick={back}>
          {say("Turn back")}
        </button>
      </div>
    );
  if (!context) return <Waiting what={say("One moment.")} />;
  const view = VIEWS[what];
  if (!view) return <Navigate to={`/visits/${id}/show`} replace />;
  const home = context.view.visit.home;
  return (
    <Context.Provider value={context}>
      <Frame
        home={listed(home.name, home.place)}
        back={back}
        language={<LanguageKey language={language} onChoose={choose} />}
      >
        <Stale read={visit} />
        <Fragment key={spoken}>
          <HealthFirst />
          {view()}
        </Fragment>
      </Frame>
    </Context.Provider>
  );
}
