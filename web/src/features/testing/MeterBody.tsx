/** The pocket meter as it is drawn in the glass. */
import type { ReactElement } from "react";

import type { Instrument } from "../../api/types";
import { num } from "../../app/show";
import { say } from "../../app/language";

export function MeterBody({
  text,
  instrument,
}: {
  text: string;
  instrument: Instrument;
}): ReactElement {
  const of = instrument.accuracy_of === "reading" ? say("of reading") : say("of full scale");
  const acc =
    instrument.accuracy_share == null
      ? say("accuracy ?")
      : `${num(instrument.accuracy_share * 100, 1)} % ${of}`;
  return (
    <g transform="rotate(6 50 40)">
      <path
        d={
          "M34,-84 h30 a5 5 0 0 1 5 5 V2 l-6,16 v44 l-4,5 H39 l-4,-5 V18 L29,2 V-79 " +
          "a5 5 0 0 1 5,-5Z"
        }
        fill="var(--plate)"
        stroke="var(--drawn)"
        strokeWidth={1.1}
        strokeLinejoin="round"
      />
      <path d="M29,2H69M35,18H63" stroke="var(--drawn)" strokeWidth={0.7} />
      <rect
        x={34}
        y={-77}
        width={30}
        height={22}
        rx={1.5}
        fill="var(--screen)"
        stroke="var(--drawn)"
        strokeWidth={0.9}
      />
      <text
        x={49}
        y={-60}
        textAnchor="middle"
        fontSize={16}
        style={{ fill: "var(--drawn)", fontFamily: "var(--f-d)", fontWeight: 640 }}
      >
        {text || "–"}
      </text>
      <circle cx={49} cy={-40} r={6.4} fill="var(--yuzu)" stroke="var(--drawn)" strokeWidth={0.9} />
      <path
        d="M49,-43.5v4M46.3,-42.2a3.7 3.7 0 1 0 5.4,0"
        fill="none"
        stroke="var(--drawn)"
        strokeWidth={0.9}
        strokeLinecap="round"
      />
      <text x={49} y={-20} textAnchor="middle" fontSize={7.8} style={{ fill: "var(--drawn)" }}>
        {say("factor {x}", { x: instrument.factor ?? "?" })}
      </text>
      <text x={49} y={-10} textAnchor="middle" fontSize={6.2} style={{ fill: "var(--drawn)" }}>
        {acc}
      </text>
      <path d="M43,67v9M55,67v9" stroke="var(--drawn)" strokeWidth={2.2} />
      <path d="M35,54H63" stroke="var(--drawn)" strokeWidth={0.6} />
    </g>
  );
}
