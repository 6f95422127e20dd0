/** The vial of a drop kit: its bottle, its drops and its colour. */
import type { ReactElement, ReactNode } from "react";
import { spoken, say } from "../../app/language";

export interface Colours {
  start: [number, number, number];
  middle: [number, number, number];
  end: [number, number, number];
  words: [string, string, string];
}
const COLOURS: Record<string, Colours> = spoken({
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
    words: ["Green", "Gray", "Pink"],
  },
  calcium: {
    start: [206, 96, 128],
    middle: [134, 92, 160],
    end: [70, 104, 186],
    words: ["Pink", "Purple", "Blue"],
  },
});
export const css = (c: readonly number[]): string => `rgb(${c.join(",")})`;
const mix = (a: readonly number[], b: readonly number[], t: number): number[] =>
  a.map((v, i) => Math.round(v + ((b[i] ?? v) - v) * t));

/** The colours that a kit's water runs through. */
export const coloursOf = (analyte: string): Colours => COLOURS[analyte] ?? COLOURS.hardness!;

/** The colour of the water after so many drops. */
function tintOf(drops: number, done: boolean, colours: Colours): readonly number[] {
  if (done) return colours.end;
  if (drops === 0) return colours.start;
  return mix(colours.start, colours.middle, Math.min(0.5, drops * 0.02));
}

function Dropper({ label }: { label: string }): ReactElement {
  const written = { textAnchor: "middle", style: { fill: "var(--drawn)" } } as const;
  return (
    <>
      <g stroke="var(--ink)" strokeWidth="2.5" strokeLinejoin="round">
        <path
          d="M86,-40 V42 Q86,58 98,64 L110,112 Q120,120 130,112 L142,64 Q154,58 154,42 V-40Z"
          fill="var(--slip)"
          transform="translate(0 118)"
        />
        <path d="M86,78H154V142H86Z" fill="var(--yuzu)" />
      </g>
      <text x="120" y="106" fontSize="21" fontWeight="640" {...written}>
        {say("1 drop")}
      </text>
      <text x="120" y="131" fontSize="19" fontWeight="600" {...written}>
        = {label}
      </text>
      <path
        d="M120,236 C128,251 133,257 133,265 a13,13 0 0 1 -26,0 C107,257 112,251 120,236Z"
        fill="var(--water-2)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
    </>
  );
}

function Water({ tint, cloud }: { tint: readonly number[]; cloud: ReactNode }): ReactElement {
  return (
    <>
      <path
        d="M62,392 H178 V566 Q178,590 154,590 H86 Q62,590 62,566Z"
        fill={css(tint)}
        style={{ transition: "fill var(--settle)" }}
      />
      <ellipse
        cx="120"
        cy="392"
        rx="58"
        ry="10"
        fill={css(mix(tint, [255, 255, 255], 0.15))}
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      {cloud}
    </>
  );
}

const WALL = "M56,312 V568 Q56,597 86,597 H154 Q184,597 184,568 V312";

export function Vial({
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
  const tint = tintOf(drops, done, colours);
  const cloud = drops > 0 && !done && (
    <ellipse
      cx="121"
      cy="392"
      rx={14 + (drops % 3) * 4}
      ry="4"
      fill={css(colours.end)}
      opacity="0.7"
    />
  );
  return (
    <svg
      width="150"
      height="300"
      viewBox="40 90 160 520"
      overflow="visible"
      role="img"
      aria-label={say("Vial, {drops} drops{x}", {
        drops,
        x: done ? `, ${colours.words[2].toLowerCase()}` : "",
      })}
    >
      <ellipse
        cx="128"
        cy="600"
        rx="74"
        ry="8"
        fill={css(mix(tint, [0, 0, 0], 0.18))}
        opacity="0.35"
      />
      <Dropper label={label} />
      <path d={WALL} fill="var(--slip)" fillOpacity="0.8" />
      <Water tint={tint} cloud={cloud} />
      <path d={WALL} fill="none" stroke="var(--ink)" strokeWidth="2.8" />
      <ellipse cx="120" cy="312" rx="64" ry="9" fill="none" stroke="var(--ink)" strokeWidth="2.8" />
      <path
        d="M72,424V512M72,524V532"
        stroke="var(--plate)"
        strokeWidth="5"
        strokeLinecap="round"
        opacity="0.9"
      />
    </svg>
  );
}
