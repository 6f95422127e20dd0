/** A drop titration: tap anywhere, or the space bar; each drop is a step on a line. */
import { Undo2 } from "lucide-react";
import { useCallback, useEffect, useState, type ReactElement, type ReactNode } from "react";

import { useStrike } from "../../api/hooks";
import type { Instrument, Reading } from "../../api/types";
import { best, num, unitOf } from "../../app/show";
import { fitness } from "../../app/fitness";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { OnTheLedge } from "./OnTheLedge";
import { useKeep } from "./useKeep";

interface Colours {
  start: [number, number, number];
  middle: [number, number, number];
  end: [number, number, number];
  words: [string, string, string];
}
const COLOURS: Record<string, Colours> = {
  hardness: {
    start: [206, 96, 128],
    middle: [134, 92, 160],
    end: [70, 104, 186],
    words: ["Red", "Purple", "Blue"],
  },
  alkalinity: {
    start: [104, 168, 120],
    middle: [170, 150, 150],
    end: [214, 120, 160],
    words: ["Green", "Grey", "Pink"],
  },
  calcium: {
    start: [206, 96, 128],
    middle: [134, 92, 160],
    end: [70, 104, 186],
    words: ["Pink", "Purple", "Blue"],
  },
};
const css = (c: readonly number[]): string => `rgb(${c.join(",")})`;
const mix = (a: readonly number[], b: readonly number[], t: number): number[] =>
  a.map((v, i) => Math.round(v + ((b[i] ?? v) - v) * t));

function Vial({
  drops,
  label,
  colours,
  done,
}: {
  drops: number;
  label: string;
  colours: Colours;
  done: boolean;
}): ReactElement {
  const c = done
    ? colours.end
    : drops > 0
      ? mix(colours.start, colours.middle, Math.min(0.5, drops * 0.02))
      : colours.start;
  const edge = mix(c, [0, 0, 0], 0.18);
  return (
    <svg
      width="150"
      height="300"
      viewBox="40 90 160 520"
      overflow="visible"
      role="img"
      aria-label={`Vial, ${drops} drops${done ? `, ${colours.words[2].toLowerCase()}` : ""}`}
    >
      <ellipse cx="128" cy="600" rx="74" ry="8" fill={css(edge)} opacity="0.35" />
      <g stroke="var(--ink)" strokeWidth="2.5" strokeLinejoin="round">
        <path
          d="M86,-40 V42 Q86,58 98,64 L110,112 Q120,120 130,112 L142,64 Q154,58 154,42 V-40Z"
          fill="var(--slip)"
          transform="translate(0 118)"
        />
        <path d="M86,78H154V142H86Z" fill="var(--yuzu)" />
      </g>
      <text
        x="120"
        y="106"
        textAnchor="middle"
        fontSize="21"
        fontWeight="640"
        style={{ fill: "#10302A" }}
      >
        1 drop
      </text>
      <text
        x="120"
        y="131"
        textAnchor="middle"
        fontSize="19"
        fontWeight="600"
        style={{ fill: "#10302A" }}
      >
        = {label}
      </text>
      <path
        d="M120,236 C128,251 133,257 133,265 a13,13 0 0 1 -26,0 C107,257 112,251 120,236Z"
        fill="var(--water-2)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      <path
        d="M56,312 V568 Q56,597 86,597 H154 Q184,597 184,568 V312"
        fill="var(--slip)"
        fillOpacity="0.8"
      />
      <path
        d="M62,392 H178 V566 Q178,590 154,590 H86 Q62,590 62,566Z"
        fill={css(c)}
        style={{ transition: "fill var(--settle)" }}
      />
      <ellipse
        cx="120"
        cy="392"
        rx="58"
        ry="10"
        fill={css(mix(c, [255, 255, 255], 0.15))}
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      {drops > 0 && !done && (
        <ellipse
          cx="121"
          cy="392"
          rx={14 + (drops % 3) * 4}
          ry="4"
          fill={css(colours.end)}
          opacity="0.7"
        />
      )}
      <path
        d="M56,312 V568 Q56,597 86,597 H154 Q184,597 184,568 V312"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.8"
      />
      <ellipse cx="120" cy="312" rx="64" ry="9" fill="none" stroke="var(--ink)" strokeWidth="2.8" />
      <path
        d="M72,424V512M72,524V532"
        stroke="#FFFFFA"
        strokeWidth="5"
        strokeLinecap="round"
        opacity="0.9"
      />
    </svg>
  );
}

function Ruler({ n, value, unit }: { n: number; value: number; unit: string }): ReactElement {
  const most = Math.max(18, Math.ceil((n + 2) / 6) * 6);
  const X = (v: number): number => (v * 560) / most;
  const step = [5, 10, 20, 50, 100, 200].find((s) => most / s <= 5) ?? 500;
  const marks = Array.from({ length: 6 }, (_, i) => i * step).filter((v) => v <= most - step / 3);
  return (
    <svg viewBox="0 0 570 100" width="100%" style={{ maxWidth: 570 }} aria-hidden="true">
      {Array.from({ length: most }, (_, i) => i + 1).map((i) =>
        i === n ? (
          <rect
            key={i}
            x={X(i - 1) + 1}
            y={36}
            width={X(i) - X(i - 1) - 2}
            height={28}
            fill="var(--yuzu)"
            stroke="#10302A"
            strokeWidth={2}
          />
        ) : (
          <path
            key={i}
            d={`M${X(i - 1) + 2},50H${X(i) - 2}`}
            stroke={i < n ? "var(--ink)" : "var(--rule)"}
            strokeWidth={i < n ? 10 : 4}
          />
        ),
      )}
      {marks.map((v) => (
        <g key={v}>
          <path d={`M${X(v)},70v7`} stroke="var(--ink-2)" strokeWidth={1.5} />
          <text
            x={X(v)}
            y={94}
            textAnchor={v ? "middle" : "start"}
            fontSize={15}
            style={{ fill: "var(--ink-2)" }}
          >
            {num(v * value, 1)}
            {v === 0 ? ` ${unit}` : ""}
          </text>
        </g>
      ))}
      {n > 0 && (
        <text
          x={Math.min(Math.max(X(n - 0.5), 90), 470)}
          y={22}
          textAnchor="middle"
          fontSize={17}
          fontWeight={640}
        >
          between {num((n - 1) * value, 1)} and {num(n * value, 1)} {unit}
        </text>
      )}
    </svg>
  );
}

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

export function DropsStation({
  kit,
  title,
  next,
}: {
  kit: Instrument;
  title: string;
  next: ReactNode;
}): ReactElement {
  const analyte = kit.analyte;
  const { id, picked, units, view, readingsOf } = useVisitContext();
  const key = `${STORE}${picked?.id ?? ""}.${analyte}`;
  const [count, setCount] = useState<{ key: string; n: number }>({ key, n: held(key) });
  const [dilution, setDilution] = useState(1);
  const [more, setMore] = useState(false);
  const strike = useStrike(id);
  const { busy, error, save } = useKeep();
  if (count.key !== key) setCount({ key, n: held(key) });
  const n = count.n;
  const colours = COLOURS[analyte] ?? COLOURS.hardness!;
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
  const kept: Reading | null =
    [...(picked ? readingsOf(picked) : [])]
      .reverse()
      .find((r) => r.analyte === analyte && !r.struck_at && r.observation.method === "drops") ??
    null;
  const counting = kept === null || more || n > 0;
  useEffect(() => {
    const press = (e: KeyboardEvent): void => {
      const tag = (e.target as HTMLElement).tagName;
      if (tag === "INPUT" || tag === "SELECT" || tag === "TEXTAREA") return;
      if ((e.code === "Space" || e.key === " ") && counting) {
        e.preventDefault();
        set((v) => v + 1);
      }
      if (e.key.toLowerCase() === "z" && !e.ctrlKey && !e.metaKey && counting) set((v) => v - 1);
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [set, counting]);
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const unit = kit.unit || unitOf(analyte, "metric").unit;
  const short = unit.replace(" as CaCO3", "");
  const drop = (kit.drop_value ?? 1) * dilution;
  const keepIt = async (): Promise<void> => {
    const observation = { method: "drops" as const, drops: n, dilution };
    set(() => 0);
    setMore(false);
    setDilution(1);
    await save(kit, observation);
  };
  const report = view.assessment.samples
    .find((s) => s.id === picked.id)
    ?.readings.find((r) => r.id === kept?.id);
  const value = report?.value;
  return (
    <>
      <OnTheLedge>
        <Vial
          drops={counting ? n : countOf(kept)}
          label={`${num(drop, 1)} ${short}`}
          colours={colours}
          done={!counting}
        />
      </OnTheLedge>
      <section
        aria-labelledby="drops-title"
        className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-6"
      >
        <div>
          <ul>
            {(
              [
                ["start", "it begins"],
                ["middle", "slow down: nearly there"],
                ["end", "stop at the first that stays"],
              ] as const
            ).map(([k, w], i) => (
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
        </div>
        <div>
          <h1 id="drops-title">{title}</h1>
          {!counting ? (
            <div className="mt-3">
              <div className="flex items-end gap-5 flex-wrap">
                <span className="num text-[96px] leading-[0.84]">
                  {countOf(kept)}
                  <span className="font-t font-medium text-[22px] text-ink-2 tracking-normal ml-2">
                    drops
                  </span>
                </span>
                {report && value ? (
                  <span className="text-b leading-tight pb-1">
                    <span className="text-ink-2">that is</span>
                    <br />
                    <OpensWorking working={report.working}>
                      {best(analyte, value, units)}
                    </OpensWorking>
                  </span>
                ) : (
                  <span className="text-ink-2">kept on this device</span>
                )}
              </div>
              <div className="mt-4">
                <Ruler n={countOf(kept)} value={drop} unit={short} />
              </div>
              <div className="flex gap-3 mt-3 flex-wrap items-center">
                {next}
                <button className="key" onClick={() => setMore(true)}>
                  Count again
                </button>
                <button
                  className="key bare"
                  disabled={strike.isPending}
                  onClick={() => strike.mutate({ reading: kept.id, because: "taken back" })}
                >
                  <Undo2 size={20} aria-hidden="true" />
                  Strike this reading
                </button>
              </div>
            </div>
          ) : (
            <>
              <p className="text-ink-2">
                Tap the field for each drop, or press <kbd>space</kbd>. Swirl after every one.{" "}
                {kit.change_of_colour}.{kit.simulated ? " (Simulated kit.)" : ""}
              </p>
              <button
                className="block w-full mt-3 text-left rounded-[10px] border-[1.5px] border-dashed border-ink-3 bg-slip px-5 py-4 active:bg-yuzu-pale min-h-[188px]"
                aria-label={`Add one drop, ${n} so far`}
                onClick={() => set((v) => v + 1)}
              >
                <span className="flex items-end gap-6">
                  <span className="num text-[132px] leading-[0.8]">{n}</span>
                  <span className="pb-1">
                    <b className="font-d text-[26px]">drops</b>
                    <br />
                    {n > 0 ? (
                      <>
                        <span className="text-ink-2">
                          If it turns {colours.words[2].toLowerCase()} now:{" "}
                        </span>
                        <b className="text-l">
                          {num(n * drop, 1)} {short}
                        </b>
                      </>
                    ) : (
                      <span className="text-ink-2">none yet</span>
                    )}
                  </span>
                </span>
                <span className="block mt-4">
                  <Ruler n={n} value={drop} unit={short} />
                </span>
              </button>
              <div className="flex gap-3 mt-3 items-center flex-wrap">
                <button className="key go" disabled={busy} onClick={() => void keepIt()}>
                  It is {colours.words[2].toLowerCase()}
                </button>
                <button
                  className="key"
                  style={{ minHeight: 60 }}
                  disabled={n === 0}
                  onClick={() => set((v) => v - 1)}
                >
                  <Undo2 size={20} aria-hidden="true" />
                  Take back one <kbd>Z</kbd>
                </button>
                <label className="flex items-center gap-2 text-m">
                  Diluted to
                  <select
                    className="input"
                    style={{ width: 110, minHeight: 44 }}
                    value={dilution}
                    onChange={(e) => setDilution(Number(e.target.value))}
                  >
                    {[1, 2, 3, 4, 5, 10].map((d) => (
                      <option key={d} value={d}>
                        {d === 1 ? "not diluted" : `1 in ${d}`}
                      </option>
                    ))}
                  </select>
                </label>
              </div>
            </>
          )}
          {fitness(kit) === "reagent expired" && (
            <p className="flex gap-2 text-m mt-2">
              <StateMark kind="no" size={16} />
              The reagent expired on {kit.reagent_expiry}.
            </p>
          )}
          <Trouble error={error ?? strike.error} />
        </div>
      </section>
    </>
  );
}
