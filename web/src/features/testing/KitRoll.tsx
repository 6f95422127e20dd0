/** Pockets of the kit: what each test is, and how far it is. */
import type { ReactElement } from "react";
import { useSearchParams } from "react-router";

import { best } from "../../app/show";
import { StateMark, type Mark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { DRAWN } from "./kit";
import { POCKETS, type Pocket } from "./pockets";
import { say } from "../../app/language";

function stateOf(
  p: Pocket,
  values: Record<
    string,
    {
      range: { best: number; low: number; high: number | null } | null;
      below?: number | null;
      words?: string;
    }
  >,
  units: string,
): { mark: Mark; words: string } {
  const have = p.analytes.filter((a) => values[a]);
  if (have.length === 0) return { mark: "miss", words: "missing" };
  const first = have[0] ?? "";
  const v = values[first];
  const shown = v ? best(first, v, units) : "";
  return {
    mark: p.needs.every((a) => values[a]) ? "done" : "part",
    words: shown.replace(" per 100 mL", "").replace("under ", "< ").replace("at least ", "≥ "),
  };
}

export function KitRoll({ current }: { current: string }): ReactElement {
  const { picked, valuesOf, units, view } = useVisitContext();
  const [search, setSearch] = useSearchParams();
  const values: Record<
    string,
    {
      range: { best: number; low: number; high: number | null } | null;
      below?: number | null;
      words?: string;
    }
  > = picked ? { ...valuesOf(picked) } : {};
  const cups = view.assessment.samples.find((s) => s.id === picked?.id)?.water.cups;
  if (cups) values.colour = { range: null, words: cups.drawn.split("_")[0] ?? "" };
  const choose = (key: string): void => {
    const next = new URLSearchParams(search);
    next.set("kit", key);
    next.delete("tool");
    setSearch(next, { replace: true });
  };
  return (
    <div
      role="tablist"
      aria-label={say("The kit")}
      className={
        "shrink-0 grid grid-flow-col auto-cols-[minmax(104px,1fr)] h-[118px] overflow-x-auto " +
        "overflow-y-hidden scroll"
      }
    >
      {POCKETS.map((p) => {
        const s = stateOf(p, values, units);
        const on = p.key === current;
        return (
          <button
            key={p.key}
            role="tab"
            aria-selected={on}
            id={`kit-${p.key}`}
            className="relative h-[118px] text-left"
            onClick={() => choose(p.key)}
            onKeyDown={(e) => {
              const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key] ?? 0;
              if (!by) return;
              const next = POCKETS[(POCKETS.indexOf(p) + by + POCKETS.length) % POCKETS.length];
              if (next) {
                choose(next.key);
                document.getElementById(`kit-${next.key}`)?.focus();
              }
            }}
          >
            <span className="absolute left-3 top-[2px]" style={{ opacity: on ? 0.2 : 1 }}>
              {DRAWN[p.drawn]}
            </span>
            <span className={`pocket ${on ? "bg-yuzu text-on-yuzu" : "bg-ledge"}`}>
              <b className="block text-m leading-tight">{p.name}</b>
              <span
                className={
                  "flex gap-1 items-center mt-[5px] text-s whitespace-nowrap " +
                  (on ? "" : "text-ink-2")
                }
              >
                <StateMark kind={s.mark} size={15} />
                <span style={{ fontStretch: s.words.length > 10 ? "78%" : undefined }}>
                  {s.words}
                </span>
              </span>
            </span>
          </button>
        );
      })}
    </div>
  );
}
