/** The line: its stages, what is added and taken out, and what it comes to in this water. */
import { useState, type ReactElement } from "react";
import { Link, useSearchParams } from "react-router";

import { useReference } from "../../api/hooks";
import type { Item, Option, VisitView } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { ChooseItem } from "./ChooseItem";
import { Flow } from "./Flow";
import { LineMenu } from "./LineMenu";
import { LETTER, LineTabs, MOST_LINES, NewLine, TODAY } from "./LineTabs";
import { Suggest } from "./Suggest";
import { useLine, type LineEdits } from "./useLine";
import { WhatIf } from "./WhatIf";
import { say } from "../../app/language";
import { uniqueName } from "../../app/names";

function NothingTested({ id }: { id: string }): ReactElement {
  return (
    <div className="p-2">
      <h1>{say("System")}</h1>
      <p className="text-l mt-2">
        {say(
          "A system is designed from the raw sample. Draw a glass before all treatment and " +
            "test it first.",
        )}
      </p>
      <Link className="key mt-4" to={`/visits/${id}/test`}>
        {say("To the test")}
      </Link>
    </div>
  );
}

const NO_REASON =
  "The readings give no reason to buy anything: “do nothing” is a good answer, and can be " +
  "proposed as it stands. ";

function NoLine({ onSuggest, onAdd }: { onSuggest: () => void; onAdd: () => void }): ReactElement {
  const { view } = useVisitContext();
  return (
    <div className="px-8 pt-6 max-w-[760px]">
      <h1>{say("No system yet")}</h1>
      <p className="text-l mt-2 mb-4">
        {view.assessment.nothing_needed && NO_REASON}
        {say(
          "Start one with what the findings ask for; the rules put its stages in order and " +
            "check each of them against this water and this house.",
        )}
      </p>
      <div className="flex gap-3 flex-wrap">
        <button className="key go" onClick={onSuggest}>
          {say("Let the tool propose systems")}
        </button>
        <button className="key" style={{ minHeight: 60 }} onClick={onAdd}>
          {say("Choose the first stage")}
        </button>
      </div>
    </div>
  );
}

function Impossible({
  option,
  error,
  onDrop,
}: {
  option: Option;
  error: string;
  onDrop: (code: string) => void;
}): ReactElement {
  return (
    <div className="p-8 grid gap-4 justify-items-start">
      <p className="flex gap-3 text-l">
        <StateMark kind="no" size={24} />
        {error}
      </p>
      {option.stages.map((s, i) => (
        <button key={i} className="key" onClick={() => onDrop(s.item)}>
          {say("Take out {item}", { item: s.item })}
        </button>
      ))}
    </div>
  );
}

function today(): Option {
  return { id: TODAY, name: say("Today"), stages: [], note: "", keeps: [] };
}

type Asking = "suggest" | "what-if" | "add" | Item | null;

function Dialogs({
  asking,
  option,
  line,
  close,
}: {
  asking: Asking;
  option: Option | undefined;
  line: LineEdits;
  close: () => void;
}): ReactElement {
  const { view } = useVisitContext();
  const analytes = useReference().data?.analytes ?? [];
  const currency = view.visit.settings.currency;
  const taken = view.visit.options.map((o) => o.name);
  const swapping = asking !== null && typeof asking === "object" ? asking : null;
  return (
    <>
      {asking === "suggest" && (
        <Suggest
          full={view.visit.options.length >= MOST_LINES}
          names={(a) => analytes.find((x) => x.id === a)?.name ?? a}
          onClose={close}
          onTake={(o) => line.put({ ...o, name: uniqueName(o.name, taken) }, close)}
        />
      )}
      {asking === "what-if" && option && (
        <WhatIf
          option={option}
          onClose={close}
          onTake={(o) => {
            line.edit(() => o);
            close();
          }}
        />
      )}
      <ChooseItem
        open={asking === "add"}
        onOpen={(open) => {
          if (!open) close();
        }}
        onChoose={line.add}
        currency={currency}
        title={option ? say("Add to “{name}”", { name: option.name }) : say("The first stage")}
      />
      {swapping && (
        <ChooseItem
          open
          onOpen={(open) => {
            if (!open) close();
          }}
          onChoose={(i) => line.swap(swapping.code, i)}
          currency={currency}
          only={swapping.figures.kind}
          title={say("In place of {name}", { name: swapping.name })}
        />
      )}
    </>
  );
}

/** The ledge under a line, on which its glasses stand. */
function Ledge(): ReactElement {
  return (
    <div
      className="fixed left-0 right-0 bottom-0 h-[64px] bg-ledge border-t border-rule"
      aria-hidden="true"
    >
      <div className="absolute inset-x-0 bottom-0 h-[7px] bg-face border-t-2 border-ink" />
    </div>
  );
}

interface Chosen {
  /** The line that is edited; none while today is shown. */
  option: Option | undefined;
  /** What is shown: the line, or what stands there already. */
  shown: Option | undefined;
  report: VisitView["assessment"]["options"][number] | undefined;
  choose: (id: string) => void;
}

function useChosen(): Chosen {
  const { view } = useVisitContext();
  const [search, setSearch] = useSearchParams();
  const { options, home } = view.visit;
  const wanted = search.get("line");
  const isToday = home.in_place.length > 0 && (wanted === TODAY || options.length === 0);
  const option = isToday ? undefined : (options.find((o) => o.id === wanted) ?? options[0]);
  const shown = isToday ? today() : option;
  return {
    option,
    shown,
    report: view.assessment.options.find((o) => o.id === shown?.id),
    choose: (id) => {
      const next = new URLSearchParams(search);
      next.set("line", id);
      setSearch(next, { replace: true });
    },
  };
}

/** Tabs of the lines, and what can be done with the one that is shown. */
function Tools({
  chosen,
  line,
  ask,
}: {
  chosen: Chosen;
  line: LineEdits;
  ask: (a: Asking) => void;
}): ReactElement {
  const { id, view } = useVisitContext();
  const { option, shown, report } = chosen;
  const { options } = view.visit;
  return (
    <div className="flex items-center gap-2 py-2 flex-wrap">
      {shown && <h1 className="sr-only">{say("System")}</h1>}
      <LineTabs view={view} chosen={shown?.id ?? ""} onChoose={chosen.choose} />
      <span className="flex gap-2 ml-auto">
        <NewLine
          busy={line.busy}
          full={options.length >= MOST_LINES}
          onNew={() => line.fresh(() => ask("add"))}
        />
        <button className="key" style={{ minHeight: 46 }} onClick={() => ask("suggest")}>
          {say("Propose systems")}
        </button>
        {option && option.stages.length > 0 && report?.line && (
          <button className="key" style={{ minHeight: 46 }} onClick={() => ask("what-if")}>
            {say("What if?")}
          </button>
        )}
        {option && (
          <LineMenu
            key={option.id}
            visit={view.visit.id}
            option={option}
            letter={LETTER(options.indexOf(option))}
            judged={view.assessment.in_place}
            full={options.length >= MOST_LINES}
            onEdit={line.edit}
            onCopy={line.copy}
            onDrop={line.away}
          />
        )}
        <Link className="key ink" to={`/visits/${id}/compare`}>
          {say("Compare")}
        </Link>
      </span>
    </div>
  );
}

function Drawn({
  chosen,
  line,
  ask,
}: {
  chosen: Chosen;
  line: LineEdits;
  ask: (a: Asking) => void;
}): ReactElement | null {
  const { option, shown, report } = chosen;
  const change = (c: Option["stages"][number]): void =>
    line.edit((o) => ({ ...o, stages: o.stages.map((x) => (x.item === c.item ? c : x)) }));
  if (!shown) return <NoLine onSuggest={() => ask("suggest")} onAdd={() => ask("add")} />;
  if (report?.line)
    return (
      <Flow
        line={report.line}
        option={shown}
        onAdd={option ? () => ask("add") : null}
        onSwap={ask}
        onDrop={line.takeOut}
        onTake={line.swap}
        onChange={change}
      />
    );
  if (!option || !report) return null;
  return <Impossible option={option} error={report.error} onDrop={line.takeOut} />;
}

export function Line(): ReactElement {
  const { id, view } = useVisitContext();
  const [asking, setAsking] = useState<Asking>(null);
  const chosen = useChosen();
  const line = useLine(chosen.option, chosen.choose);
  if (!view.assessment.raw) return <NothingTested id={id} />;
  return (
    <div className="absolute inset-0 grid grid-rows-[auto_minmax(0,1fr)]">
      <Ledge />
      <Tools chosen={chosen} line={line} ask={setAsking} />
      <div className="relative min-h-0 -mx-8">
        <Drawn chosen={chosen} line={line} ask={setAsking} />
        <div className="absolute left-8 bottom-[190px] z-10">
          <Trouble error={line.error} />
        </div>
      </div>
      <Dialogs asking={asking} option={chosen.option} line={line} close={() => setAsking(null)} />
    </div>
  );
}
