/** Clear, brown, or brown later: three white cups. */
import { useState, type ReactElement, type ReactNode } from "react";

import type { Instrument, Reading } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { StateMark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { AtLedgeEnd, OnTheLedge } from "./OnTheLedge";
import { clock, startTimer, useNow, useTimers } from "./timers";
import { useKeep } from "./useKeep";

type Seen = Extract<Reading["observation"], { method: "cups" }>;
const DRAWN: [Seen["drawn"], string][] = [
  ["clear", "Clear"],
  ["faint", "Faint"],
  ["coloured", "Coloured"],
  ["clears_top_down", "Clears downward"],
  ["milky_clears_bottom_up", "Milky, clears upward"],
];
const STOOD: [NonNullable<Seen["stood"]>, string][] = [
  ["clear", "Clear"],
  ["coloured", "Coloured"],
  ["darkens", "Darker"],
  ["same", "The same"],
  ["brown_black", "Brown-black"],
  ["settles", "Solids settle"],
];
const POWDER: [NonNullable<Seen["reducer"]>, string][] = [
  ["wholly", "Clears it wholly"],
  ["partly", "Clears it partly"],
  ["no_change", "No change"],
];
const TINT: Record<string, string> = {
  clear: "#E2EFE9",
  faint: "#E6E0C4",
  coloured: "#D5A85E",
  darkens: "#A96A2C",
  same: "#D5A85E",
  brown_black: "#4A3324",
  settles: "#CDB893",
  clears_top_down: "#D9C9A4",
  milky_clears_bottom_up: "#F4F2EA",
  wholly: "#E2EFE9",
  partly: "#E0CF9A",
  no_change: "#D5A85E",
};

function Cup({ x, fill, name }: { x: number; fill: string | null; name: string }): ReactElement {
  return (
    <g transform={`translate(${x} 0)`}>
      <path
        d="M4,30H60L53,110H11Z"
        fill="#FFFFFC"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      {fill && (
        <>
          <path d="M6.5,48H57.5L52.4,107H11.6Z" fill={fill} />
          <ellipse
            cx="32"
            cy="48"
            rx="25.5"
            ry="5"
            fill={fill}
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
        </>
      )}
      <ellipse cx="32" cy="30" rx="28" ry="5.5" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <text x="32" y="18" textAnchor="middle" fontSize="13" style={{ fill: "var(--ink-2)" }}>
        {name}
      </text>
    </g>
  );
}

function Choices<T extends string>({
  label,
  list,
  value,
  onPick,
}: {
  label: string;
  list: [T, string][];
  value: T | null;
  onPick: (v: T) => void;
}): ReactElement {
  return (
    <div>
      <h3 className="mb-1 text-[16px]">{label}</h3>
      <div className="flex flex-wrap gap-[6px]" role="radiogroup" aria-label={label}>
        {list.map(([v, name]) => (
          <button
            key={v}
            type="button"
            role="radio"
            aria-checked={value === v}
            className="key"
            style={{
              minHeight: 44,
              padding: "0 11px",
              fontSize: 15,
              ...(value === v ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
            }}
            onClick={() => onPick(v)}
          >
            {name}
          </button>
        ))}
      </div>
    </div>
  );
}

export function CupsStation({ kit, next }: { kit: Instrument; next: ReactNode }): ReactElement {
  const { id, picked, view, readingsOf } = useVisitContext();
  const kept = [...(picked ? readingsOf(picked) : [])]
    .reverse()
    .find((r) => !r.struck_at && r.observation.method === "cups");
  const before = kept?.observation.method === "cups" ? kept.observation : null;
  const [draft, setDraft] = useState<Partial<Seen> | null>(null);
  const { busy, error, save } = useKeep();
  const timer = useTimers(id).find((t) => t.label === "standing cup");
  const now = useNow(timer !== undefined);
  const seen: Partial<Seen> = draft ?? before ?? {};
  const stoodFor = timer ? (now - timer.startedAt) / 60_000 : (before?.stood_minutes ?? null);
  const set = (part: Partial<Seen>): void => setDraft({ ...seen, ...part });
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const keepIt = async (): Promise<void> => {
    if (!seen.drawn) return;
    await save(kit, {
      method: "cups",
      drawn: seen.drawn,
      stood: seen.stood ?? null,
      stood_minutes: seen.stood ? Math.round(stoodFor ?? 20) : null,
      reducer: seen.reducer ?? null,
    });
    setDraft(null);
  };
  const finding = picked.raw ? view.assessment.meaning?.colour : null;
  return (
    <>
      <OnTheLedge>
        <svg
          width="200"
          height="150"
          viewBox="0 0 212 118"
          overflow="visible"
          role="img"
          aria-label="Three cups: as drawn, stood, with powder"
        >
          <Cup x={0} fill={seen.drawn ? (TINT[seen.drawn] ?? null) : null} name="as drawn" />
          <Cup x={72} fill={seen.stood ? (TINT[seen.stood] ?? null) : null} name="stood" />
          <Cup x={144} fill={seen.reducer ? (TINT[seen.reducer] ?? null) : null} name="powder" />
        </svg>
      </OnTheLedge>
      <section
        aria-labelledby="cups-title"
        className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-6 content-start"
      >
        <p className="text-s text-ink-2">
          White cups, good light, equal depths. The reducing powder irritates: keep it dry, away
          from acids and bleach. It may bleach some organics and also clears manganese.
        </p>
        <div className="grid gap-2">
          <div className="flex items-center justify-between gap-3">
            <h1 id="cups-title">Colour, in three cups</h1>
            <button
              type="button"
              className="key"
              style={{ minHeight: 44, padding: "0 12px", fontSize: 15 }}
              onClick={() => startTimer("standing cup", 1200, id)}
            >
              {timer
                ? now < timer.endsAt
                  ? `${clock(timer.endsAt - now)} to stand`
                  : "stood long enough"
                : "Put one aside: 20:00"}
            </button>
          </div>
          <Choices
            label="As drawn"
            list={DRAWN}
            value={seen.drawn ?? null}
            onPick={(drawn) => set({ drawn })}
          />
          <Choices
            label={`After standing${stoodFor !== null ? `, ${Math.floor(stoodFor)} min` : ", 20 minutes or more"}`}
            list={STOOD}
            value={seen.stood ?? null}
            onPick={(stood) => set({ stood })}
          />
          {seen.drawn === "coloured" && (
            <Choices
              label="With the reducing powder, once it has worked"
              list={POWDER}
              value={seen.reducer ?? null}
              onPick={(reducer) => set({ reducer })}
            />
          )}
          <div className="flex gap-3 items-center flex-wrap">
            {(draft || !before) && (
              <AtLedgeEnd>
                <button
                  className="key go"
                  style={{ minHeight: 48 }}
                  disabled={busy || !seen.drawn}
                  onClick={() => void keepIt()}
                >
                  Keep the cups
                </button>
              </AtLedgeEnd>
            )}
            {before && !draft && next}
            {finding && before && !draft && (
              <p className="flex gap-2 text-m flex-1 min-w-[220px]">
                <StateMark
                  kind={finding.id === "unknown" || finding.next !== "" ? "unk" : "done"}
                  size={20}
                />
                <span>
                  <b>{finding.sentence}</b> {finding.next}
                </span>
              </p>
            )}
          </div>
          <Trouble error={error} />
        </div>
      </section>
    </>
  );
}
