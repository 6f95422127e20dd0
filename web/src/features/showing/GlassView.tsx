/** The glass at full size, every visible sign explained by words beside it. */
import type { ReactElement } from "react";

import { between, best, num } from "../../app/show";
import { Glass } from "../../glass/Glass";
import type { Look } from "../../glass/look";
import type { Value } from "../../api/types";
import { useVisitContext } from "../visit/context";
import { TwoSentences } from "./parts";
import { say } from "../../app/language";

export interface Sign {
  title: string;
  words: string;
  /** Where it is in the glass: share of its width and height. */
  at: [number, number];
}

const pairs = (combined: number): string =>
  combined >= 0.05
    ? say("; pairs are chloramine, {combined} mg/L", { combined: num(combined, 1) })
    : "";

export function signsOf(l: Look, values: Record<string, Value>, units: string): Sign[] {
  const out: Sign[] = [];
  const said = (a: string): string => (values[a] ? best(a, values[a], units) : "");
  if (l.ring > 0.3)
    out.push({
      title: say("A crust at the water line"),
      words: say("what it leaves behind when it is heated"),
      at: [0.86, 0.23],
    });
  if (l.hard && l.hard[1] >= 5) {
    const n = Math.round(l.hard[0] / 10);
    const more = Math.round(l.hard[1] / 10) - n;
    out.push({
      title:
        more > 0
          ? say("{n} to {most} crystals", { n, most: n + more })
          : say("{n} crystals", { n }),
      words: say("one for every 10 mg/L of hardness: {x}", { x: said("hardness") }),
      at: [0.66, 0.5],
    });
  }
  if (l.ferric >= 0.15)
    out.push({
      title: say("A rust tint"),
      words: say("iron, {x}", { x: said("iron") }),
      at: [0.6, 0.62],
    });
  if (l.tannin >= 0.3)
    out.push({
      title: say("A tea tint"),
      words: say("tannin, {x}", { x: said("tannin") }),
      at: [0.44, 0.42],
    });
  if (l.ntu >= 0.8)
    out.push({
      title: say("A haze"),
      words: say("turbidity, {x}", { x: said("turbidity") }),
      at: [0.38, 0.36],
    });
  if (l.free >= 0.05 || l.combined >= 0.05)
    out.push({
      title: say("Bubbles"),
      words: say("chlorine, {free} mg/L free{combined}", {
        free: num(l.free, 1),
        combined: pairs(l.combined),
      }),
      at: [0.52, 0.76],
    });
  if (l.tds && values.tds?.range)
    out.push({
      title: say("A mark on the wall"),
      words: say("dissolved solids, {x}: it cannot be seen", {
        x: between("tds", values.tds.range, units),
      }),
      at: [0.87, 0.23 + 0.6 * (1 - Math.min(1, (l.tds[0] + l.tds[1]) / 2000))],
    });
  if (l.unseen > 0)
    out.push({
      title: say("Hatching"),
      words: say("not tested: {x}", {
        x: l.tests
          .filter((t) => !t.done && ["hardness", "iron", "tannin", "chlorine"].includes(t.name))
          .map((t) => say(t.name))
          .join(", "),
      }),
      at: [0.42, 0.83],
    });
  return out.slice(0, 5);
}

/**
 * A glass with lines to the words beside it. Lines follow the order of the words, so that none
 * cross.
 */
export function ExplainedGlass({
  look,
  label,
  signs,
  h = 560,
}: {
  look: Look;
  label: string;
  signs: Sign[];
  h?: number;
}): ReactElement {
  const w = (h * 100) / 140;
  const sorted = [...signs].sort((a, b) => a.at[1] - b.at[1]);
  const top = 24;
  // a shorter glass has its words closer together
  const row = h < 480 ? Math.max(68, Math.min(96, (h - top) / Math.max(1, sorted.length))) : 96;
  const right = w + 84;
  // on the laptop the glass stands on the ledge, below the main area
  const sunk = window.innerWidth >= 1100 ? 58 : 0;
  return (
    <div className="relative" style={{ height: Math.max(h, top + sorted.length * row) }}>
      <div key={label} className="absolute left-0" style={{ bottom: -sunk }}>
        <Glass look={look} h={h} label={label} pouring />
      </div>
      <svg
        className="absolute left-0 top-0 overflow-visible pointer-events-none"
        width={right}
        height={h}
        aria-hidden="true"
      >
        {sorted.map((s, i) => {
          const [x, y] = [
            s.at[0] * w,
            s.at[1] * h + (Math.max(h, top + sorted.length * row) - h) + sunk,
          ];
          const ty = top + i * row + 16;
          return (
            <g key={s.title}>
              <path
                d={`M${x},${y} C${x + 70},${y} ${right - 80},${ty} ${right - 8},${ty}`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
              <circle
                cx={x}
                cy={y}
                r={5.5}
                fill="var(--yuzu)"
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
            </g>
          );
        })}
      </svg>
      <ul className="absolute" style={{ left: right, right: 0, top }}>
        {sorted.map((s) => (
          <li key={s.title} style={{ height: row }}>
            <b className="font-d text-[23px] leading-tight block">{s.title}</b>
            <span className="text-[20px] leading-[1.2] text-ink-2 block">{s.words}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

export function GlassView(): ReactElement {
  const { view, picked, pick, lookOf, valuesOf, units } = useVisitContext();
  if (!picked) return <h1 className="text-[44px]">{say("No glass drawn yet")}</h1>;
  const look = lookOf(picked);
  // what is said of health stands above it
  const grave = view.assessment.meaning?.findings.some((f) => f.weight === "health") ?? false;
  const open = look.tests.filter((t) => !t.done).map((t) => say(t.name));
  const others = view.visit.samples;
  return (
    <div
      className={"grid wide:grid-cols-[minmax(0,1fr)_350px] gap-x-10 gap-y-8 h-full content-start"}
    >
      <div>
        <h1 className="text-[52px] max-[1099px]:text-[40px] mb-4 leading-none">
          {picked.name}
          {picked.draw === "stood" ? say(", after standing") : ""}
        </h1>
        <ExplainedGlass
          look={look}
          label={picked.name}
          signs={signsOf(look, valuesOf(picked), units)}
          h={grave ? 380 : 520}
        />
      </div>
      <div className="grid gap-6 content-start">
        <TwoSentences
          kind="glass"
          more={open.length ? say("Not tested here: {x}.", { x: open.join(", ") }) : undefined}
        />
        {others.length > 1 && (
          <div className="flex flex-wrap gap-2" role="group" aria-label={say("Glasses")}>
            {others.map((s) => (
              <button
                key={s.id}
                className="grid justify-items-center gap-1 p-2 rounded-[10px] w-[112px]"
                aria-pressed={s.id === picked.id}
                onClick={() => pick(s.id)}
              >
                <Glass look={lookOf(s)} h={72} label={s.name} pick={s.id === picked.id ? 1 : 0} />
                <span className="text-[20px] leading-tight">{s.name}</span>
              </button>
            ))}
          </div>
        )}
      </div>
    </div>
  );
}
