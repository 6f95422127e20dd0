/** One analyte over the years: values with their ranges, winters shaded, changes marked. */
import type { ReactElement } from "react";

import { ANALYTE_NAMES, SHOWN } from "../../app/facts.generated";
import { useUnits } from "../../app/units";
import type { HomeYears, Series } from "./hooks";
import { roundUp, winters, type Span } from "./scale";
import { spoken } from "../../app/language";

const W = 340;
const H = 150;
const LEFT = 44;
const FILL: Record<string, string> = {
  raw: "var(--paper)",
  house: "var(--water-3)",
  tap: "var(--yuzu)",
};
const SAID: Record<string, string> = spoken({ raw: "raw", house: "house", tap: "drinking tap" });

function Axes({
  top,
  span,
  x,
}: {
  top: number;
  span: Span;
  x: (t: number) => number;
}): ReactElement {
  const last = new Date(span.to).getFullYear();
  const years = [...new Set([new Date(span.from).getFullYear() + 1, last])];
  const text = { fontSize: 14, fill: "var(--ink-2)" };
  return (
    <>
      <path d={`M${LEFT},${H - 24}H${W - 8}`} stroke="var(--ink)" strokeWidth="1.5" />
      <text x={LEFT - 6} y={H - 20} textAnchor="end" {...text}>
        0
      </text>
      <text x={LEFT - 6} y={22} textAnchor="end" {...text}>
        {top}
      </text>
      {years.map((v) => (
        <text key={v} x={Math.max(LEFT, x(new Date(v, 0, 1).getTime()))} y={H - 6} {...text}>
          {v}
        </text>
      ))}
    </>
  );
}

export function Chart({
  series,
  home,
  span,
}: {
  series: Series;
  home: HomeYears;
  span: Span;
}): ReactElement {
  const units = useUnits() ?? "us";
  const shown = SHOWN[series.analyte]?.[units] ?? { factor: 1, unit: "", decimals: 1 };
  const points = series.points.filter((p) => p.range);
  const top = roundUp(
    Math.max(...points.map((p) => (p.range?.high ?? p.range?.best ?? 0) * shown.factor), 0),
  );
  const x = (t: number): number =>
    LEFT + ((t - span.from) / (span.to - span.from)) * (W - LEFT - 8);
  const y = (v: number): number => H - 24 - (Math.min(v * shown.factor, top) / top) * (H - 40);
  const name = ANALYTE_NAMES[series.analyte] ?? series.analyte;
  const told = points
    .map((p) => {
      const value = ((p.range?.best ?? 0) * shown.factor).toFixed(shown.decimals);
      return `${p.at.slice(0, 10)} ${SAID[p.where]} ${value}`;
    })
    .join(", ");
  return (
    <figure className="m-0">
      <figcaption className="text-b">
        <b className="font-d text-l">{name}</b> <span className="text-ink-2">{shown.unit}</span>
      </figcaption>
      <svg viewBox={`0 0 ${W} ${H}`} width="100%" role="img" aria-label={`${name}: ${told}`}>
        {winters(span).map(([a, b]) => (
          <rect key={a} x={x(a)} y="10" width={x(b) - x(a)} height={H - 34} fill="var(--water)" />
        ))}
        {home.events.map((e, i) => (
          <path
            key={i}
            d={`M${x(Date.parse(e.at))},10V${H - 24}`}
            stroke="var(--zest-ink)"
            strokeDasharray="2 3"
          />
        ))}
        <Axes top={top} span={span} x={x} />
        {home.notes
          .filter((n) => !n.struck && Date.parse(n.on) >= span.from && Date.parse(n.on) <= span.to)
          .map((n) => (
            <circle
              key={n.id}
              cx={x(Date.parse(n.on))}
              cy={H - 24}
              r="5"
              fill="var(--paper)"
              stroke="var(--zest-ink)"
              strokeWidth="2"
            >
              <title>{`${n.on}: ${n.text}`}</title>
            </circle>
          ))}
        {points.map((p, i) => (
          <g key={i}>
            <path
              d={`M${x(Date.parse(p.at))},${y(p.range?.low ?? 0)}V${y(p.range?.high ?? Infinity)}`}
              stroke="var(--ink)"
              strokeWidth="1.6"
            />
            <circle
              cx={x(Date.parse(p.at))}
              cy={y(p.range?.best ?? 0)}
              r="5"
              fill={FILL[p.where]}
              stroke="var(--ink)"
              strokeWidth="1.6"
            />
          </g>
        ))}
      </svg>
    </figure>
  );
}
