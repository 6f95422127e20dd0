/** Show: what can be demonstrated with this water, what was shown, and what is not offered. */
import type { ReactElement } from "react";
import { lowerFirst } from "../../app/names";
import { Link } from "react-router";

import { useDemonstrations, useKeepDemonstration } from "../../api/hooks";
import type { Demonstration, DemoWords, VisitView } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { StrikeKey } from "../../ui/StrikeKey";
import { useTakeBack } from "../../ui/TakeBack";
import { Trouble, Waiting } from "../../ui/Trouble";
import { POCKETS } from "../testing/pockets";
import { useVisitContext } from "../visit/context";
import { DrawGlass } from "../visit/DrawGlass";
import { DemoPicture } from "./DemoPicture";
import { lastShown } from "./useDemo";
import { spoken, say } from "../../app/language";

type About = DemoWords["offered"][number];
type Ready = VisitView["assessment"]["ready"][number];

function PourSheet(): ReactElement | null {
  const { view } = useVisitContext();
  const running = lastShown(view, "tasting");
  if (running?.body.kind !== "tasting" || running.body.shown_at) return null;
  const name = (id: string): string => view.visit.samples.find((s) => s.id === id)?.name ?? "";
  return (
    <section className="border-[1.5px] border-ink bg-slip p-4" aria-label={say("Pour sheet")}>
      <h2>{say("Pour sheet: for your eyes only")}</h2>
      <p className="text-m text-ink-2 mb-2">
        {say("Mark the glasses out of sight, then turn the screen.")}
      </p>
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
            {t.ranks && say(", ranked")}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Where a reading that is missing is made. */
function measureAt(visit: string, analyte: string, glass: string): string {
  const pocket = POCKETS.find((p) => p.analytes.includes(analyte));
  return `/visits/${visit}/test?${glass}kit=${pocket?.key ?? "tds"}`;
}

function Key({ about, ready }: { about: About; ready: Ready }): ReactElement | null {
  const { id, view, picked } = useVisitContext();
  const glass = picked ? `glass=${picked.id}&` : "";
  const made = lastShown(view, about.id);
  const words = made && about.id !== "glass" ? say("Show again") : say("Show");
  if (ready.draw) return <DrawGlass always />;
  if (ready.measure !== "")
    return (
      <Link className="key shrink-0" to={measureAt(id, ready.measure, glass)}>
        {say("Measure it")}
      </Link>
    );
  if (ready.lacks !== "" && about.id === "through")
    return (
      <Link className="key shrink-0" to={`/visits/${id}/line?${glass}`}>
        {say("To the system")}
      </Link>
    );
  return (
    <Link
      className="key shrink-0"
      aria-label={`${words}: ${about.name}`}
      to={`/visits/${id}/facing/${about.id}?${glass}from=show`}
    >
      {words}
    </Link>
  );
}

const REASONS = spoken(["Shown wrong", "Another glass", "Counted wrong", "They were unsure of it"]);

/** Strikes a demonstration with its reason; for ten seconds it can be taken back. */
function StrikeShown({ made, name }: { made: Demonstration; name: string }): ReactElement {
  const { id, view } = useVisitContext();
  const keep = useKeepDemonstration(id);
  const offer = useTakeBack();
  const back = (version: number): void =>
    keep.mutate({ made: { ...made, struck_at: null, struck_because: "" }, version });
  const strike = (because: string): void =>
    keep.mutate(
      {
        made: { ...made, struck_at: new Date().toISOString(), struck_because: because },
        version: view.versions[made.id],
      },
      {
        onSuccess: (saved) =>
          offer(say("{name} crossed out: {because}", { name, because }), () => back(saved.version)),
      },
    );
  return (
    <>
      <StrikeKey
        words={say("Strike: {name}", { name })}
        reasons={REASONS}
        busy={keep.isPending}
        small
        onStrike={strike}
      />
      <Trouble error={keep.error} />
    </>
  );
}

function Row({ about, ready }: { about: About; ready: Ready }): ReactElement {
  const { view } = useVisitContext();
  const made = lastShown(view, about.id);
  const out = view.assessment.demonstrations.find((s) => s.id === made?.id);
  const said = ready.lacks || out?.refused || out?.sentences[0] || about.shows;
  return (
    <li className="flex gap-4 items-center border-b border-rule py-[5px]">
      <DemoPicture kind={about.id} />
      <span className="flex-1 min-w-0">
        <b className="font-d text-l flex gap-2 items-center flex-wrap">
          {made && <StateMark kind={out?.refused ? "no" : "done"} size={18} label="shown" />}
          {about.name}
          {ready.called_for && <span className="tag">{say("for what was found")}</span>}
          {made?.simulated && <span className="tag dashed">{say("simulated")}</span>}
        </b>
        <span className="block text-m text-ink-2">{said}</span>
        {about.needs !== "" && (
          <span className="block text-s text-ink-2">
            {say("On the table: {needs}", { needs: lowerFirst(about.needs) })}
          </span>
        )}
      </span>
      {made && <StrikeShown made={made} name={about.name} />}
      <Key about={about} ready={ready} />
    </li>
  );
}

export function Show(): ReactElement {
  const { view } = useVisitContext();
  const words = useDemonstrations();
  if (!words.data) return <Waiting what={say("One moment.")} />;
  const { offered, not_offered } = words.data;
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_300px] gap-x-10 gap-y-6 pb-6 pr-3">
      <section aria-labelledby="show-title">
        <h1 id="show-title" className="mb-1">
          {say("Show them their own water")}
        </h1>
        <p className="text-ink-2 mb-3">
          {say("Each opens facing the customer: large, without prices or notes.")} <kbd>T</kbd>{" "}
          {say("or one touch turns it back.")}
        </p>
        <ul>
          {view.assessment.ready.map((ready) => {
            const about = offered.find((a) => a.id === ready.id);
            return about && <Row key={ready.id} about={about} ready={ready} />;
          })}
        </ul>
      </section>
      <aside className="grid gap-6 content-start">
        <PourSheet />
        <section aria-labelledby="not-title">
          <h2 id="not-title" className="mb-2">
            {say("Not offered, and why")}
          </h2>
          <ul>
            {not_offered.map((n) => (
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
