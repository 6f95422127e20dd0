/** A drop titration: tap anywhere, or the space bar; each drop is a step on a line. */
import { Undo2 } from "lucide-react";
import { useCallback, useEffect, useState, type ReactElement, type ReactNode } from "react";

import type { Instrument, Reading } from "../../api/types";
import { fitness } from "../../app/fitness";
import { best, num, unitOf } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { OnTheLedge } from "./OnTheLedge";
import { Dilution, Flags, procedureOf, StationFrame, OnRecord, type StationProps } from "./pieces";
import { Ruler } from "./Ruler";
import { useKeep } from "./useKeep";
import { useKept, type Kept } from "./useKept";
import { coloursOf, css, Vial, type Colours } from "./Vial";
import { spoken, say } from "../../app/language";

const countOf = (r: Reading): number =>
  r.observation.method === "drops" ? r.observation.drops : 0;

const STORE = "zesty.drops.";
function held(key: string): number {
  try {
    return Number(sessionStorage.getItem(key) ?? localStorage.getItem(key) ?? 0) || 0;
  } catch {
    return 0;
  }
}

/** Drops counted so far of this glass: kept on this device until they are a reading. */
function useCount(key: string): { n: number; set: (f: (n: number) => number) => void } {
  const [count, setCount] = useState<{ key: string; n: number }>({ key, n: held(key) });
  if (count.key !== key) setCount({ key, n: held(key) });
  const set = useCallback((f: (n: number) => number) => {
    setCount((c) => {
      const next = Math.max(0, f(c.n));
      try {
        localStorage.setItem(c.key, String(next));
      } catch {
        // the count lives on this page only
      }
      return { ...c, n: next };
    });
  }, []);
  return { n: count.n, set };
}

/** Space adds a drop, Z takes one back, while drops are counted. */
function useKeys(counting: boolean, set: (f: (n: number) => number) => void): void {
  useEffect(() => {
    if (!counting) return;
    const press = (e: KeyboardEvent): void => {
      const { tagName } = e.target as HTMLElement;
      if (["INPUT", "SELECT", "TEXTAREA"].includes(tagName)) return;
      if (e.code === "Space" || e.key === " ") {
        e.preventDefault();
        set((v) => v + 1);
      }
      if (e.key.toLowerCase() === "z" && !e.ctrlKey && !e.metaKey) set((v) => v - 1);
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [set, counting]);
}

const WHEN = spoken([
  ["start", "it begins"],
  ["middle", "slow down: nearly there"],
  ["end", "stop at the first that stays"],
] as const);

function Turning({ colours }: { colours: Colours }): ReactElement {
  return (
    <ul>
      {WHEN.map(([k, w], i) => (
        <li key={k} className="flex gap-2 items-center text-m leading-tight mb-2">
          <span
            className="w-6 h-8 border-[1.5px] border-ink border-t-0 rounded-b-[5px] shrink-0"
            style={{ background: css(colours[k]) }}
          />
          <span>
            <b>{colours.words[i]}</b>
            <br />
            <span className="text-ink-2 text-s">{w}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}

interface OneDrop {
  /** What one drop stands for here [unit]. */
  value: number;
  unit: string;
}

function KeptDrops({
  kept,
  drop,
  next,
  onAgain,
}: {
  kept: Kept;
  drop: OneDrop;
  next: ReactNode;
  onAgain: () => void;
}): ReactElement | null {
  const { units } = useVisitContext();
  const { reading, report } = kept;
  if (!reading) return null;
  return (
    <div className="mt-3">
      <div className="flex items-end gap-5 flex-wrap">
        <span className="num text-[96px] leading-[0.84]">
          {countOf(reading)}
          <span className="font-t font-medium text-[22px] text-ink-2 tracking-normal ml-2">
            {say("drops")}
          </span>
        </span>
        {report ? (
          <span className="text-b leading-tight pb-1">
            <span className="text-ink-2">{say("that is")}</span>
            <br />
            <OpensWorking working={report.working}>
              {best(report.analyte, report.value, units)}
            </OpensWorking>
          </span>
        ) : (
          <span className="text-ink-2">{say("kept on this device")}</span>
        )}
      </div>
      <div className="mt-4">
        <Ruler n={countOf(reading)} value={drop.value} unit={drop.unit} />
      </div>
      <Flags flags={report?.value.flags ?? []} />
      <div className="flex gap-3 mt-3 flex-wrap items-center">
        {next}
        <button className="key" onClick={onAgain}>
          {say("Count again")}
        </button>
        <OnRecord reading={reading} words={say("Strike this reading")} />
      </div>
    </div>
  );
}

function Field({
  n,
  drop,
  ends,
  onDrop,
}: {
  n: number;
  drop: OneDrop;
  ends: string;
  onDrop: () => void;
}): ReactElement {
  const so = n > 0;
  return (
    <button
      className={
        "block w-full mt-3 text-left rounded-[10px] border-[1.5px] border-dashed border-ink-3 " +
        "bg-slip px-5 py-3 active:bg-yuzu-pale min-h-[150px]"
      }
      aria-label={say("Add one drop, {n} so far", { n })}
      onClick={onDrop}
    >
      <span className="flex items-end gap-6">
        <span className="num text-[104px] leading-[0.8]">{n}</span>
        <span className="pb-1">
          <b className="font-d text-[26px]">{say("drops")}</b>
          <br />
          <span className="text-ink-2">
            {so ? say("If it turns {ends} now: ", { ends }) : say("none yet")}
          </span>
          {so && (
            <b className="text-l">
              {num(n * drop.value, 1)} {drop.unit}
            </b>
          )}
        </span>
      </span>
      <span className="block mt-4">
        <Ruler n={n} value={drop.value} unit={drop.unit} />
      </span>
    </button>
  );
}

function Counting({
  kit,
  n,
  set,
  drop,
  ends,
  dilution,
  onDilution,
  busy,
  onKeep,
}: {
  kit: Instrument;
  n: number;
  set: (f: (n: number) => number) => void;
  drop: OneDrop;
  ends: string;
  dilution: number;
  onDilution: (d: number) => void;
  busy: boolean;
  onKeep: () => void;
}): ReactElement {
  const { steps, caution } = procedureOf(kit);
  return (
    <>
      <p className="text-ink-2">
        {steps.slice(0, -1).join(". ")}
        {say(". Then tap the field for each drop, or press")} <kbd>{say("space")}</kbd>
        {say(", and swirl.")} {caution}
      </p>
      <Field n={n} drop={drop} ends={ends} onDrop={() => set((v) => v + 1)} />
      <div className="flex gap-3 mt-3 items-center flex-wrap">
        <button className="key go" disabled={busy} onClick={onKeep}>
          {say("It is {ends}", { ends })}
        </button>
        <button
          className="key"
          style={{ minHeight: 60 }}
          disabled={n === 0}
          onClick={() => set((v) => v - 1)}
        >
          <Undo2 size={20} aria-hidden="true" />
          {say("Take back one")} <kbd>Z</kbd>
        </button>
        <Dilution value={dilution} onChange={onDilution} />
      </div>
    </>
  );
}

function Expired({ kit }: { kit: Instrument }): ReactElement | null {
  if (fitness(kit) !== "reagent expired") return null;
  return (
    <p className="flex gap-2 text-m mt-2">
      <StateMark kind="no" size={16} />
      {say("The reagent expired on")} {kit.reagent_expiry}.
    </p>
  );
}

export function DropsStation({ kit, sample, next }: StationProps): ReactElement {
  const { analyte } = kit;
  const { n, set } = useCount(`${STORE}${sample.id}.${analyte}`);
  const [dilution, setDilution] = useState(1);
  const [more, setMore] = useState(false);
  const { busy, error, save } = useKeep();
  const kept = useKept(sample, (r) => r.analyte === analyte && r.observation.method === "drops");
  const counting = kept.reading === null || more || n > 0;
  useKeys(counting, set);
  const colours = coloursOf(analyte);
  const how = procedureOf(kit);
  const unit = (kit.unit || unitOf(analyte, "metric").unit).replace(" as CaCO3", "");
  const drop: OneDrop = { value: (kit.drop_value ?? 1) * dilution, unit };
  const keepIt = (): void => {
    const observation = { method: "drops" as const, drops: n, dilution };
    set(() => 0);
    setMore(false);
    setDilution(1);
    void save(kit, observation);
  };
  return (
    <>
      <OnTheLedge>
        <Vial
          drops={kept.reading && !counting ? countOf(kept.reading) : n}
          label={`${num(drop.value, 1)} ${unit}`}
          colours={colours}
          done={!counting}
        />
      </OnTheLedge>
      <StationFrame titled="drops-title" side={<Turning colours={colours} />}>
        <h1 id="drops-title">{how.title || kit.name}</h1>
        {counting ? (
          <Counting
            kit={kit}
            n={n}
            set={set}
            drop={drop}
            ends={colours.words[2].toLowerCase()}
            dilution={dilution}
            onDilution={setDilution}
            busy={busy}
            onKeep={keepIt}
          />
        ) : (
          <KeptDrops kept={kept} drop={drop} next={next} onAgain={() => setMore(true)} />
        )}
        <Expired kit={kit} />
        <Trouble error={error} />
      </StationFrame>
    </>
  );
}
