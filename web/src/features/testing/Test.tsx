/** Test: the kit roll, the station at hand, and what it explains so far. */
import { lazy, Suspense, useEffect, useState, type ReactElement, type ReactNode } from "react";
import { useSearchParams } from "react-router";

import { useInstruments } from "../../api/hooks";
import type { Instrument } from "../../api/types";
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

const LabStation = lazy(() => import("./LabStation").then((m) => ({ default: m.LabStation })));
const TITLES: Record<string, string> = {
  hardness: "Hardness, by drops",
  calcium: "Calcium hardness, by drops",
  alkalinity: "Alkalinity, by drops",
};

function Station({
  kit,
  next,
  chooser,
}: {
  kit: Instrument;
  next: ReactNode;
  chooser: ReactNode;
}): ReactElement {
  if (kit.analyte === "colour") return <CupsStation kit={kit} next={next} />;
  if (kit.kind === "senses") return <SensesStation kit={kit} next={next} />;
  switch (kit.kind) {
    case "meter":
      return <MeterStation key={kit.id} kit={kit} next={next} chooser={chooser} />;
    case "drops":
      return <DropsStation kit={kit} title={TITLES[kit.analyte] ?? kit.name} next={next} />;
    case "strip":
    case "comparator":
      return <PadStation kit={kit} next={next} />;
    case "bucket":
      return <BucketStation kit={kit} next={next} />;
    default:
      return <NumberStation key={kit.id} kit={kit} next={next} />;
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
  // the first choice stays until another is made: a kept reading is shown, not replaced by the next test
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

function Bench({ pocket }: { pocket: Pocket }): ReactElement {
  const [search, setSearch] = useSearchParams();
  const { tools, tool, choose, has } = useTool(pocket);
  // several kits for one thing are a choice; several things are a row of their own
  const one = pocket.key === "tds";
  const index = POCKETS.indexOf(pocket);
  const rest = pocket.needs.find((a) => !has(a) && a !== tool?.analyte);
  const after = POCKETS[index + 1];
  const go = (): void => {
    const n = new URLSearchParams(search);
    n.delete("tool");
    if (rest) {
      const t = tools.find((x) => x.analyte === rest);
      if (t) n.set("tool", t.id);
    } else if (after) n.set("kit", after.key);
    setSearch(n, { replace: true });
  };
  const restTool = tools.find((t) => t.analyte === rest);
  const words = rest
    ? `Next: ${restTool?.name.toLowerCase() ?? rest}`
    : after
      ? `Next: ${after.name}`
      : "";
  // the key that leads on takes the focus, so that one more touch or Enter goes to the next test
  const next =
    words === "" ? null : (
      <AtLedgeEnd>
        <NextKey words={words} go={go} />
      </AtLedgeEnd>
    );
  if (!tool)
    return (
      <p className="text-l">
        The firm has no kit for this. A manager may add one under “Kits and catalogue”.
      </p>
    );
  return (
    <div className="min-w-0 grid gap-3 content-start">
      {tools.length > 1 && !one && (
        <div
          className="flex gap-2 overflow-x-auto scroll"
          role="group"
          aria-label="Kits in this pocket"
        >
          {tools.map((t) => (
            <button
              key={t.id}
              className="key"
              style={{
                minHeight: 44,
                padding: "0 12px",
                fontSize: 15,
                ...(t.id === tool.id ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
              }}
              aria-pressed={t.id === tool.id}
              onClick={() => choose(t.id)}
            >
              {has(t.analyte) && <StateMark kind="done" size={15} />}
              {unfit(t) && <StateMark kind="no" size={15} label="reagent expired" />}
              {t.name}
            </button>
          ))}
        </div>
      )}
      <Station
        kit={tool}
        next={next}
        chooser={
          one && tools.length > 1 ? (
            <select
              className="input"
              style={{ width: 134, minHeight: 44, padding: "4px 8px", fontSize: 15 }}
              aria-label="Meter"
              value={tool.id}
              onChange={(e) => choose(e.target.value)}
            >
              {tools.map((t) => (
                <option key={t.id} value={t.id}>
                  {t.name}
                  {unfit(t) ? ", expired" : ""}
                </option>
              ))}
            </select>
          ) : null
        }
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

export function Test(): ReactElement {
  const [search] = useSearchParams();
  const { picked } = useVisitContext();
  const pocket = POCKETS.find((p) => p.key === search.get("kit")) ?? POCKETS[0]!;
  return (
    <div className="h-full flex flex-col min-w-0">
      <KitRoll current={pocket.key} />
      <div
        className="flex-1 min-h-0 pt-3 grid grid-cols-[minmax(0,1fr)] wide:grid-cols-[minmax(0,1fr)_260px] gap-x-8 gap-y-6 items-start content-start"
        role="tabpanel"
        aria-labelledby={`kit-${pocket.key}`}
      >
        {pocket.key === "lab" ? (
          <Suspense fallback={<Waiting what="One moment." />}>
            <LabStation />
          </Suspense>
        ) : (
          <Bench key={`${pocket.key}${picked?.id ?? ""}`} pocket={pocket} />
        )}
        <div className={pocket.key === "lab" ? "" : "max-[1099px]:pl-[224px]"}>
          <Explains />
        </div>
      </div>
    </div>
  );
}
