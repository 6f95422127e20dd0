/** The head of each option's column, and the glasses that it stands on. */
import type { CSSProperties, ReactElement } from "react";

import { useChangeVisit } from "../../api/hooks";
import type { ComparedOption } from "../../api/types";
import { atOnce } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { look, type Look } from "../../glass/look";
import { StateMark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

/** Today has no letter. */
export const letterOf = (i: number): string => (i === 0 ? "" : String.fromCharCode(64 + i));

export function ColumnHead({
  o,
  i,
  currency,
  recommended,
}: {
  o: ComparedOption;
  i: number;
  currency: string;
  recommended: boolean;
}): ReactElement {
  return (
    <div className="min-w-0">
      <div className="flex items-center gap-2 min-w-0">
        {i > 0 && (
          <span
            className={
              "num w-7 h-7 shrink-0 rounded-full border-[1.6px] border-ink grid " +
              "place-items-center text-[15px]"
            }
            style={recommended ? { background: "var(--yuzu)", color: "var(--drawn)" } : undefined}
          >
            {letterOf(i)}
          </span>
        )}
        <b className="text-b leading-tight line-clamp-2">{o.name}</b>
      </div>
      <p className="text-s text-ink-2">
        {i === 0
          ? say("as it stands, nothing bought")
          : atOnce(Number(o.bought), Number(o.per_month), currency)}
      </p>
      {o.stops && i > 0 && (
        <p className="flex gap-1 items-center text-s font-semibold text-zest-ink">
          <StateMark kind="no" size={16} />
          {say("cannot work as it stands")}
        </p>
      )}
    </div>
  );
}

function waterLooks(o: ComparedOption, raw: Look): [Look, Look | null] {
  const seen = (w: ComparedOption["house"]): Look | null =>
    w ? look(w.quantities, { ferric: w.particulate_iron ?? null, predicted: true }) : null;
  return [seen(o.house) ?? raw, seen(o.tap)];
}

function Stand({
  o,
  i,
  raw,
  recommended,
  onRecommend,
}: {
  o: ComparedOption;
  i: number;
  raw: Look;
  recommended: boolean;
  onRecommend: (() => void) | null;
}): ReactElement {
  const [house, tap] = waterLooks(o, raw);
  return (
    <div className="h-[68px] flex items-center gap-1 pointer-events-none">
      <div className="flex items-end shrink-0">
        <Glass
          look={house}
          h={44}
          label={say("{name}, house", { name: o.name })}
          pick={recommended && !tap ? 1 : 0}
        />
        {tap && (
          <span className="-ml-[9px]">
            <Glass
              look={tap}
              h={34}
              label={say("{name}, drinking tap", { name: o.name })}
              pick={recommended ? 1 : 0}
            />
          </span>
        )}
      </div>
      <div className="flex flex-col justify-center text-left min-w-0 pl-1">
        <b className="text-m leading-none">{i === 0 ? say("Today") : letterOf(i)}</b>
        {recommended ? (
          <span className="text-s text-ink-2">{say("recommended")}</span>
        ) : (
          <button
            className="key bare pointer-events-auto self-start"
            style={{ minHeight: 44, padding: 0, fontSize: 14 }}
            disabled={onRecommend === null}
            aria-label={say("Recommend {x}", { x: i === 0 ? "buying nothing" : letterOf(i) })}
            onClick={() => onRecommend?.()}
          >
            {say("Recommend")}
          </button>
        )}
      </div>
    </div>
  );
}

export function Stands({
  options,
  all,
  grid,
}: {
  options: readonly ComparedOption[];
  all: readonly ComparedOption[];
  grid: CSSProperties;
}): ReactElement {
  const { id, view, lookOf } = useVisitContext();
  const change = useChangeVisit(id);
  const raw = view.visit.samples.find((s) => s.raw);
  const rawLook = raw ? lookOf(raw) : look({});
  const recommend = (o: string): void =>
    change.mutate({ version: view.versions.visit ?? 1, recommended: o });
  return (
    <div className="grid z-10" style={grid}>
      <span />
      {options.map((o) => (
        <Stand
          key={o.id}
          o={o}
          i={all.indexOf(o)}
          raw={rawLook}
          recommended={view.visit.recommended === o.id}
          onRecommend={change.isPending ? null : () => recommend(o.id)}
        />
      ))}
    </div>
  );
}
