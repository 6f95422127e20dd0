/** Meaning: the customer's words, what explains them, what else was found, what is unknown. */
import type { ReactElement } from "react";
import { Link } from "react-router";

import type { Complaint, Finding, VisitView } from "../../api/types";
import { KIND_WORDS } from "../../app/names";
import { StateMark, type Mark } from "../../ui/marks";
import { Opens } from "../../ui/Slip";
import { Glasses } from "./Glasses";
import { InPlaceSection } from "../in-place/InPlaceSection";
import { useVisitContext } from "../visit/context";
import { spoken, say } from "../../app/language";

const MARK: Record<string, Mark> = {
  fine: "done",
  not_judged: "unk",
  notice: "say",
  act: "no",
  health: "no",
};
const WEIGHT_WORDS: Record<string, string> = spoken({
  fine: "nothing to do",
  not_judged: "not judged",
  notice: "worth knowing",
  act: "asks for something",
  health: "for the laboratory and the authority",
});

function Source({ f }: { f: Finding }): ReactElement {
  return (
    <>
      <p className="text-m">{f.sentence}</p>
      <div className="sum mt-2">
        <span>{say("Value")}</span>
        <span className="v">{f.shown}</span>
        <span />
        {f.span !== "" && (
          <>
            <span>{say("Range")}</span>
            <span className="v">{f.span}</span>
            <span />
          </>
        )}
        {f.band !== "" && (
          <>
            <span>{say("Band")}</span>
            <span className="v">{f.band}</span>
            <span />
          </>
        )}
      </div>
      <p className="text-s text-ink-2 mt-3">
        {f.source
          ? say("Source: {source}, {x}.", { source: f.source, x: f.year ?? "" })
          : say("Shown as read; no limit is kept for it.")}
      </p>
    </>
  );
}

function FindingRow({ f }: { f: Finding }): ReactElement {
  return (
    <li className="flex gap-3 py-2 border-b border-rule items-start">
      <span className="pt-[3px]">
        <StateMark kind={MARK[f.weight] ?? "say"} size={18} label={WEIGHT_WORDS[f.weight] ?? ""} />
      </span>
      <span className="flex-1 min-w-0">
        {f.sentence}
        <span className="block text-s text-ink-2">
          {KIND_WORDS[f.kind]}
          {f.kind === "health" ? say(": a certified laboratory decides") : ""}
          {f.next !== "" && say(" · next: {next}", { next: f.next })}
        </span>
      </span>
      <Opens title={f.shown} slip={<Source f={f} />} className="text-m">
        {say("source")}
      </Opens>
    </li>
  );
}

type Read = NonNullable<VisitView["assessment"]["meaning"]>;

/** What who lives there needs before anything else. */
function Tonight({ said }: { said: Read["tonight"] }): ReactElement {
  return (
    <div
      className="border-[2.5px] border-zest bg-slip p-4 mb-5"
      role="note"
      aria-label={say("Until then")}
    >
      <h2 className="flex gap-2 items-center mb-1">
        <StateMark kind="no" size={22} />
        {say("What to do until the lab results are in")}
      </h2>
      <ul className="list-disc pl-6 text-l">
        {said.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
    </div>
  );
}

/** One complaint, in the customer's words or as it was noticed, with what explains it. */
function Told({
  complaint: c,
  noticed,
  m,
}: {
  complaint: Complaint;
  noticed: boolean;
  m: Read;
}): ReactElement {
  const found = m.findings.filter((f) => f.explains.includes(c.id));
  const next = m.unexplained.find((u) => u.complaint === c.id);
  return (
    <li className="pb-3 mb-3 border-b border-rule">
      {noticed ? (
        <b className="font-d font-semibold text-[20px] leading-tight block mb-1">{c.words}</b>
      ) : (
        <q className="font-d font-semibold text-[22px] leading-tight block mb-1">{c.words}</q>
      )}
      {found.map((f) => (
        <div key={f.id} className="flex gap-3 items-start mt-1">
          <span className="pt-[3px]">
            <StateMark kind="done" size={18} label="explained" />
          </span>
          <span className="flex-1">{f.sentence}</span>
          <Opens title={f.shown} slip={<Source f={f} />} className="text-m">
            {say("source")}
          </Opens>
        </div>
      ))}
      {next && (
        <p className="flex gap-3 items-start">
          <span className="pt-[3px]">
            <StateMark kind="unk" size={18} />
          </span>
          {say("Not explained yet. Next:")} {next.next}.
        </p>
      )}
    </li>
  );
}

/** Readings that do not go together. */
function HeldAgainst({ view }: { view: VisitView }): ReactElement {
  return (
    <div>
      <h2 className="mb-2">{say("Held against each other")}</h2>
      <ul>
        {view.assessment.crosschecks.map((x) => (
          <li key={x.id + x.sample} className="flex gap-2 mb-2 text-m">
            <StateMark kind="no" size={18} />
            <span>
              <b>{view.visit.samples.find((s) => s.id === x.sample)?.name}: </b>
              {x.sentence} <span className="text-ink-2">{x.remedy}</span>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function NotTested({ m }: { m: Read }): ReactElement {
  return (
    <div>
      <h2 className="mb-2">{say("Not tested")}</h2>
      {m.unknown.length === 0 && (
        <p className="text-m text-ink-2">
          {say("All that a visit looks for was tested. A laboratory may look for more.")}
        </p>
      )}
      <ul>
        {m.unknown.map((u) => (
          <li key={u.analyte} className="flex gap-2 mb-2 text-m">
            <StateMark kind="unk" size={18} />
            <span>
              <b>{u.name}</b> <span className="text-ink-2">{u.why || u.test}</span>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Which figures of the water decide sizes and settings. */
function Sets({ m }: { m: Read }): ReactElement {
  return (
    <div>
      <h2 className="mb-2">{say("What it sets")}</h2>
      <dl className="text-m">
        {m.sets.map(([k, w]) => (
          <div key={k} className="flex justify-between gap-3 border-b border-rule py-1">
            <dt>{k}</dt>
            <dd className="m-0 text-right font-semibold">{w}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

/** Where one goes from here. */
function Onward({ id, nothing }: { id: string; nothing: boolean }): ReactElement {
  if (!nothing)
    return (
      <Link className="key go" to={`/visits/${id}/line`}>
        {say("Design a system")}
      </Link>
    );
  return (
    <>
      <Link className="key go" to={`/visits/${id}/offer`}>
        {say("Propose: nothing needed")}
      </Link>
      <Link className="key bare" to={`/visits/${id}/line`}>
        {say("Design a system all the same")}
      </Link>
    </>
  );
}

/** What is not known, what does not go together, and what it sets. */
function Beside({ id, view, m }: { id: string; view: VisitView; m: Read }): ReactElement {
  return (
    <aside className="grid gap-6 content-start" aria-label={say("Unknown and checks")}>
      {view.assessment.crosschecks.length > 0 && <HeldAgainst view={view} />}
      {m.colour && (
        <div>
          <h2 className="mb-2">{say("The three cups")}</h2>
          <p className="text-m">
            {m.colour.sentence} {m.colour.next}
          </p>
        </div>
      )}
      <NotTested m={m} />
      {m.sets.length > 0 && <Sets m={m} />}
      <p className="text-s text-ink-2">
        {say(
          "Dissolved solids are not hardness: nothing here turns one into the other. Health " +
            "questions go to a certified laboratory and the local health authority.",
        )}
      </p>
      <Link className="key" to={`/visits/${id}/card`}>
        {say("A card to leave here")}
      </Link>
      {m.sets.length > 0 && (
        <Link className="key bare" to={`/visits/${id}/appliances/dishwasher`}>
          {say("A card for one appliance")}
        </Link>
      )}
      <Onward id={id} nothing={view.assessment.nothing_needed} />
    </aside>
  );
}

export function Meaning(): ReactElement {
  const { id, view } = useVisitContext();
  const m = view.assessment.meaning;
  if (!m)
    return (
      <div className="pt-2">
        <h1>{say("Meaning")}</h1>
        <p className="text-l mt-2">
          {say(
            "No raw sample yet. Draw a glass ahead of all treatment and test it; what it " +
              "means shows here.",
          )}
        </p>
      </div>
    );
  const noticed = new Set(view.assessment.noticed.map((c) => c.id));
  const complaints = [...view.visit.complaints, ...view.assessment.noticed];
  const rest = m.findings.filter((f) => f.explains.length === 0);
  return (
    <div
      className={
        "grid grid-cols-[minmax(0,1fr)] wide:grid-cols-[minmax(0,1fr)_340px] gap-x-10 gap-y-6 " +
        "pb-6 pr-3"
      }
    >
      <section aria-label={say("Findings")}>
        {view.assessment.nothing_needed && (
          <p className="bg-yuzu text-on-yuzu font-d font-semibold text-[22px] px-5 py-3 mb-4">
            {say("Nothing needed. The readings give no reason to buy anything.")}
          </p>
        )}
        {view.assessment.still_to_test !== "" && (
          <p role="note" className="bg-yuzu-pale px-5 py-3 mb-4 text-b font-semibold">
            {view.assessment.still_to_test}
          </p>
        )}
        {m.tonight.length > 0 && <Tonight said={m.tonight} />}
        <h1 className="mb-3">{say("What bothers them, and why")}</h1>
        {complaints.length === 0 && (
          <p className="text-ink-2 mb-3">{say("No complaint written down.")}</p>
        )}
        <ul className="mb-5">
          {complaints.map((c) => (
            <Told key={c.id} complaint={c} noticed={noticed.has(c.id)} m={m} />
          ))}
        </ul>
        <InPlaceSection />
        <Glasses />
        <h2 className="mb-1">{say("What else was found")}</h2>
        <ul>
          {rest.map((f) => (
            <FindingRow key={f.id} f={f} />
          ))}
        </ul>
      </section>
      <Beside id={id} view={view} m={m} />
    </div>
  );
}
