/** Breath and pH: as it comes, breathed into, poured to and fro; each on one scale. */
import type { ReactElement } from "react";

import { num } from "../../app/show";
import { NumberField } from "../../ui/fields";
import { useVisitContext } from "../visit/context";
import { Cautions, FacingView, NoGlass, Outcome, TwoSentences } from "./parts";
import { useDemo, type BodyOf } from "./useDemo";
import { message, say } from "../../app/language";

type Breath = BodyOf<"breath">;
type Mark = { name: string; ph: number; expected: boolean };

const [LEAST, MOST] = [4, 9.5];
const W = 760;
const LINE = 92;
const LINES = 3; // of what is measured; there is room for all from the beginning
const x = (ph: number): number =>
  30 + ((Math.min(MOST, Math.max(LEAST, ph)) - LEAST) / (MOST - LEAST)) * (W - 60);

function marksOf(b: Breath, expected: number | null): Mark[] {
  const measured: [string, number | null | undefined][] = [
    [say("as it comes"), b.before],
    [say("breathed into, {seconds} s", { seconds: b.seconds }), b.breathed],
    [say("poured to and fro {pours} times", { pours: b.pours }), b.aired],
  ];
  const marks = measured.flatMap(([name, ph]) =>
    ph == null ? [] : [{ name, ph, expected: false }],
  );
  return expected === null
    ? marks
    : [...marks, { name: say("expected of breath"), ph: expected, expected: true }];
}

/** Each pH on a line of its own, over one scale; what is expected is dashed. */
function Scale({ marks }: { marks: Mark[] }): ReactElement {
  const height = 60 + Math.max(LINES, marks.length) * LINE;
  const told = marks
    .map((m) => say("{name} pH {ph}", { name: m.name, ph: num(m.ph, 1) }))
    .join(", ");
  const whole = Array.from({ length: 6 }, (_, i) => LEAST + i);
  return (
    <svg
      viewBox={`0 0 ${W} ${height}`}
      width="100%"
      role="img"
      aria-label={told || say("no pH yet")}
    >
      {whole.map((ph) => (
        <g key={ph}>
          <path
            d={`M${x(ph)},10V${height - 40}`}
            stroke={ph === 7 ? "var(--ink)" : "var(--rule)"}
            strokeWidth={ph === 7 ? 2 : 1.2}
          />
          <text
            x={x(ph)}
            y={height - 12}
            textAnchor="middle"
            fontSize={24}
            style={{ fill: "var(--ink-2)" }}
          >
            {ph === 7 ? say("pH 7") : ph}
          </text>
        </g>
      ))}
      {marks.map((m, i) => {
        const y = 50 + i * LINE;
        const left = x(m.ph) > W / 2;
        return (
          <g key={m.name}>
            <circle
              cx={x(m.ph)}
              cy={y}
              r={18}
              fill={m.expected ? "var(--paper)" : "var(--yuzu)"}
              stroke="var(--ink)"
              strokeWidth={2.4}
              strokeDasharray={m.expected ? "5 4" : undefined}
            />
            <text
              x={x(m.ph) + (left ? -32 : 32)}
              y={y + 9}
              textAnchor={left ? "end" : "start"}
              fontSize={28}
              fontWeight={600}
              style={{
                fill: "var(--ink)",
                paintOrder: "stroke",
                stroke: "var(--paper)",
                strokeWidth: 12,
              }}
            >
              {`${num(m.ph, 1)} ${m.name}`}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

const FIELDS = [
  ["before", message("As it comes")],
  ["breathed", message("Breathed into, a minute")],
  ["aired", message("Poured to and fro, 20 times")],
] as const;

function Fields({
  test,
  put,
}: {
  test: Breath;
  put: (part: Partial<Breath>) => void;
}): ReactElement {
  return (
    <div className="grid grid-cols-3 max-[900px]:grid-cols-1 items-end gap-5 text-[20px]">
      {FIELDS.map(([key, label]) => (
        <NumberField
          key={key}
          label={say(label)}
          unit="pH"
          max={14}
          value={test[key] ?? null}
          onCommit={(ph) => put({ [key]: ph })}
        />
      ))}
    </div>
  );
}

function startOf(sample: string, ph: number | null): Breath {
  return {
    kind: "breath",
    sample,
    before: ph,
    breathed: null,
    seconds: 60,
    aired: null,
    pours: 20,
  };
}

export function BreathView(): ReactElement {
  const { view, picked } = useVisitContext();
  const { body, shown, error, save } = useDemo("breath");
  const glass = picked ?? view.visit.samples.find((s) => s.raw);
  if (!glass) return <NoGlass />;
  const known = view.assessment.samples.find((s) => s.id === glass.id)?.water.values["ph"];
  const test = body ?? startOf(glass.id, known?.range?.best ?? null);
  const expected = shown?.result?.kind === "breath" ? shown.result.expected : null;
  const side = (
    <>
      <TwoSentences kind="breath" />
      <Cautions kind="breath" />
    </>
  );
  return (
    <FacingView title={say("Breath and pH")} side={side}>
      <Scale marks={marksOf(test, expected ?? null)} />
      <Fields test={test} put={(part) => save({ ...test, ...part })} />
      <Outcome shown={shown} error={error} />
    </FacingView>
  );
}
