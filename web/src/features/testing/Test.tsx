/** Test: the kit roll, the station at hand, and what it explains so far. */
import { lazy, Suspense, useEffect, useState, type ReactElement, type ReactNode } from "react";
import { useSearchParams } from "react-router";

import { useInstruments } from "../../api/hooks";
import type { Instrument, Sample } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { Waiting } from "../../ui/Trouble";
import { fitness } from "../../app/fitness";
import { useVisitContext } from "../visit/context";
import { BucketStation } from "./BucketStation";
import { CupsStation } from "./CupsStation";
import { DropsStation } from "./DropsStation";
import { Explains } from "./Findings";
import { KitRoll } from "./KitRoll";
import { MeterStation } from "./MeterStation";
import { NumberStation } from "./NumberStation";
import { AtLedgeEnd } from "./OnTheLedge";
import { PadStation } from "./PadStation";
import { SensesStation } from "./SensesStation";
import { POCKETS, type Pocket } from "./pockets";
import { say } from "../../app/language";

const LabStation = lazy(() => import("./LabStation").then((m) => ({ default: m.LabStation })));
function Station({
  kit,
  sample,
  next,
  chooser,
}: {
  kit: Instrument;
  sample: Sample;
  next: ReactNode;
  chooser: ReactNode;
}): ReactElement {
  const given = { kit, sample, next };
  if (kit.analyte === "colour") return <CupsStation {...given} />;
  switch (kit.kind) {
    case "senses":
      return <SensesStation {...given} />;
    case "meter":
      return <MeterStation key={kit.id} {...given} chooser={chooser} />;
    case "drops":
      return <DropsStation {...given} />;
    case "strip":
    case "comparator":
      return <PadStation {...given} />;
    case "bucket":
      return <BucketStation {...given} />;
    default:
      return <NumberStation key={kit.id} {...given} />;
  }
}

const unfit = (kit: Instrument): boolean => fitness(kit) === "reagent expired";

/** The instruments of a pocket, the fit ones first; several for one analyte may be chosen from. */
function toolsOf(pocket: Pocket, kits: Instrument[]): Instrument[] {
  return pocket.analytes.flatMap((a) =>
    kits
      .filter((k) => k.analyte === a && k.kind !== "laboratory")
      .sort((x, y) => Number(unfit(x)) - Number(unfit(y))),
  );
}

function useTool(pocket: Pocket): {
  tools: Instrument[];
  tool: Instrument | undefined;
  choose: (id: string) => void;
  has: (analyte: string) => boolean;
} {
  const kits = useInstruments().data ?? [];
  const [search, setSearch] = useSearchParams();
  const { picked, readingsOf } = useVisitContext();
  const tools = toolsOf(pocket, kits);
  const mine = picked ? readingsOf(picked).filter((r) => !r.struck_at) : [];
  const has = (a: string): boolean => mine.some((r) => r.analyte === a);
  // the first choice stays until another is made: a kept reading is shown, not replaced by the next
  // test
  const [first, setFirst] = useState<string | null>(null);
  const tool =
    tools.find((t) => t.id === (search.get("tool") ?? first)) ??
    tools.find((t) => !has(t.analyte) && pocket.needs.includes(t.analyte)) ??
    tools.find((t) => has(t.analyte)) ??
    tools[0];
  if (first === null && tool) setFirst(tool.id);
  const choose = (id: string): void => {
    const n = new URLSearchParams(search);
    n.set("tool", id);
    setSearch(n, { replace: true });
  };
  return { tools, tool, choose, has };
}

/** Where the next touch leads: another kit of this pocket, else the next pocket. */
function useNext(
  pocket: Pocket,
  tools: Instrument[],
  tool: Instrument | undefined,
  done: Done,
): Next {
  const [search, setSearch] = useSearchParams();
  const rest = pocket.needs.find((a) => !done(a) && a !== tool?.analyte);
  const restTool = tools.find((t) => t.analyte === rest);
  const after = POCKETS[POCKETS.indexOf(pocket) + 1];
  const go = (): void => {
    const n = new URLSearchParams(search);
    n.delete("tool");
    if (restTool) n.set("tool", restTool.id);
    else if (after) n.set("kit", after.key);
    setSearch(n, { replace: true });
  };
  return { words: restTool?.name ?? after?.name ?? "", go };
}
type Done = (analyte: string) => boolean;
interface Next {
  words: string;
  go: () => void;
}

/** Several things in one pocket are a row of their own. */
function ToolRow({
  tools,
  tool,
  has,
  choose,
}: {
  tools: Instrument[];
  tool: Instrument;
  has: Done;
  choose: (id: string) => void;
}): ReactElement {
  return (
    <div
      className="flex gap-2 overflow-x-auto scroll"
      role="group"
      aria-label={say("Kits in this pocket")}
    >
      {tools.map((t) => (
        <button
          key={t.id}
          className={`key small ${t.id === tool.id ? "on" : ""}`}
          aria-pressed={t.id === tool.id}
          onClick={() => choose(t.id)}
        >
          {has(t.analyte) && <StateMark kind="done" size={15} />}
          {unfit(t) && <StateMark kind="no" size={15} label={say("reagent expired")} />}
          {t.name}
        </button>
      ))}
    </div>
  );
}

/** Several meters for one thing are a choice. */
function MeterChoice({
  tools,
  tool,
  choose,
}: {
  tools: Instrument[];
  tool: Instrument;
  choose: (id: string) => void;
}): ReactElement {
  return (
    <select
      className="input"
      style={{ width: 164, minHeight: 44, padding: "4px 0 4px 8px", fontSize: 14 }}
      aria-label={say("Meter")}
      value={tool.id}
      onChange={(e) => choose(e.target.value)}
    >
      {tools.map((t) => (
        <option key={t.id} value={t.id}>
          {t.name}
          {unfit(t) ? say(", expired") : ""}
        </option>
      ))}
    </select>
  );
}

function Bench({ pocket, sample }: { pocket: Pocket; sample: Sample }): ReactElement {
  const { tools, tool, choose, has } = useTool(pocket);
  const { words, go } = useNext(pocket, tools, tool, has);
  const several = tools.length > 1;
  const one = pocket.key === "tds";
  if (!tool)
    return (
      <p className="text-l">
        {say("The firm has no kit for this. A manager may add one under “Kits and catalog”.")}
      </p>
    );
  // the key that leads on takes the focus, so that one more touch or Enter goes to the next test
  const next = words !== "" && (
    <AtLedgeEnd>
      <NextKey words={say("Next: {words}", { words })} go={go} />
    </AtLedgeEnd>
  );
  return (
    <div className="min-w-0 grid gap-3 content-start">
      {several && !one && <ToolRow tools={tools} tool={tool} has={has} choose={choose} />}
      <Station
        kit={tool}
        sample={sample}
        next={next}
        chooser={several && one && <MeterChoice tools={tools} tool={tool} choose={choose} />}
      />
    </div>
  );
}

function NextKey({ words, go }: { words: string; go: () => void }): ReactElement {
  useEffect(() => {
    if (document.activeElement?.tagName !== "INPUT")
      document.getElementById("next-test")?.focus({ preventScroll: true });
  }, [words]);
  return (
    <button id="next-test" className="key go" style={{ minHeight: 48 }} onClick={go}>
      {words}
    </button>
  );
}

function AtHand({ pocket }: { pocket: Pocket }): ReactElement {
  const { picked } = useVisitContext();
  if (!picked)
    return (
      <p className="text-l">{say("Draw a glass first: “Draw a glass”, at the bottom right.")}</p>
    );
  if (pocket.key === "lab")
    return (
      <Suspense fallback={<Waiting what={say("One moment.")} />}>
        <LabStation sample={picked} />
      </Suspense>
    );
  return <Bench key={`${pocket.key}${picked.id}`} pocket={pocket} sample={picked} />;
}

export function Test(): ReactElement {
  const [search] = useSearchParams();
  const pocket = POCKETS.find((p) => p.key === search.get("kit")) ?? POCKETS[0]!;
  const beside = pocket.key === "lab" ? "" : "min-[700px]:max-[1099px]:pl-[224px]";
  return (
    <div className="h-full flex flex-col min-w-0">
      <KitRoll current={pocket.key} />
      <div
        className={
          "flex-1 min-h-0 pt-3 grid gap-x-8 gap-y-6 items-start content-start " +
          "grid-cols-[minmax(0,1fr)] wide:grid-cols-[minmax(0,1fr)_260px]"
        }
        role="tabpanel"
        aria-labelledby={`kit-${pocket.key}`}
      >
        <AtHand pocket={pocket} />
        <div className={beside}>
          <Explains />
        </div>
      </div>
    </div>
  );
}
