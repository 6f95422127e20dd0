/** What the signs of the comparison mean. */
import type { ReactElement } from "react";

import { EvidenceMark } from "./pictures";
import { say } from "../../app/language";

export function Legend(): ReactElement {
  return (
    <ul className="text-m grid gap-2">
      {[
        ["measured_here", say("measured here, before and after")],
        ["certified", say("certified for this contaminant")],
        ["tested", say("tested, not certified")],
        ["maker_states", say("the maker states it")],
        ["typical", say("typical of the technology")],
      ].map(([l, w]) => (
        <li key={l} className="flex gap-2 items-center">
          <EvidenceMark level={l} />
          {w}
        </li>
      ))}
      <li className="flex gap-2 items-center">
        <svg width={40} height={16} aria-hidden="true">
          <rect
            x={1}
            y={2}
            width={14}
            height={11}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <rect x={22} y={2} width={14} height={11} fill="var(--ink)" />
        </svg>
        {say("open: today; full: after")}
      </li>
      <li className="flex gap-2 items-center">
        <svg width={40} height={18} aria-hidden="true">
          <rect x={0} y={1} width={24} height={16} fill="var(--water)" />
          <path d="M24,0V18" stroke="var(--leaf)" strokeWidth={2} />
        </svg>
        {say("what is wanted")}
      </li>
      <li>{say("Tubs: plain, membrane; two dots, regenerating resin; a bar, backwash.")}</li>
      <li>
        {say(
          "Strip of twelve months: a bag is 40 lb of salt, a block a filter or part, a " +
            "triangle media.",
        )}
      </li>
    </ul>
  );
}
