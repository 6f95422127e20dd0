/** The kit roll: instruments drawn in their pockets; the one in use is out. */
import type { ReactElement, ReactNode } from "react";
import { spoken } from "../../app/language";

const svg = (children: ReactNode): ReactElement => (
  <svg
    width="56"
    height="56"
    viewBox="0 0 56 56"
    fill="var(--paper)"
    stroke="var(--ink)"
    strokeWidth="1.75"
    strokeLinejoin="round"
    strokeLinecap="round"
    aria-hidden="true"
  >
    {children}
  </svg>
);

export const DRAWN: Record<string, ReactElement> = spoken({
  tds: svg(
    <g transform="rotate(7 28 28)">
      <path d="M21 3h14a3 3 0 0 1 3 3v30l-3 8H21l-3-8V6a3 3 0 0 1 3-3Z" />
      <rect x="21.5" y="8" width="13" height="9" rx="1" fill="var(--water-2)" />
      <circle cx="28" cy="23.5" r="2.6" fill="var(--yuzu)" />
      <path d="M24 44v9M32 44v9" />
    </g>,
  ),
  hardness: svg(
    <>
      <path d="M22 22h12l3 6v25H19V28Z" />
      <path d="M19 38h18v15H19Z" fill="var(--reagent)" />
      <path d="M24 22V12l3-8h2l3 8v10Z" />
      <path d="M22 22h12" />
    </>,
  ),
  iron: svg(
    <>
      <path d="M16 8h24v6H16Z" />
      <path d="M18 14h20v39H18Z" />
      <path d="M18 26h20v27H18Z" fill="var(--vial)" />
      <path d="M34 26h4v27h-4z" fill="var(--vial-side)" stroke="none" />
    </>,
  ),
  tannin: svg(
    <>
      <path d="M14 6h10v47H14ZM32 6h10v47H32Z" />
      <path d="M14 22h10v31H14Z" fill="var(--bottle)" />
      <path d="M32 22h10v31H32Z" fill="var(--water)" />
    </>,
  ),
  chlorine: svg(
    <>
      <path d="M20 6h16v5H20ZM22 11h12v42H22Z" />
      <path d="M22 22h12v31H22Z" fill="var(--water)" />
      <circle cx="26" cy="34" r="1.8" />
      <circle cx="30.5" cy="28" r="1.8" />
      <circle cx="29.5" cy="41" r="1.8" />
    </>,
  ),
  colour: svg(
    <>
      <path d="M4 26h18l-2.4 27H6.4ZM34 26h18l-2.4 27H36.4Z" />
      <path d="M18 22h20l-2.6 31H20.6Z" />
      <ellipse cx="28" cy="22" rx="10" ry="3" fill="var(--bottle-mouth)" />
    </>,
  ),
  ph: svg(
    <>
      <path d="M22 4h12v26l-3 5v14a3 3 0 0 1-6 0V35l-3-5Z" />
      <rect x="24" y="8" width="8" height="7" fill="var(--water-2)" />
      <circle cx="28" cy="47" r="3.6" fill="var(--water)" />
    </>,
  ),
  flow: svg(
    <>
      <path d="M8 24h30l-3 29H11Z" />
      <path d="M8 24C10 10 36 10 38 24" fill="none" />
      <circle cx="43" cy="17" r="8.5" />
      <path d="M43 12v5l3 2.5M43 6v2.5" fill="none" />
    </>,
  ),
  lab: svg(
    <>
      <path d="M20 10h16v6H20ZM21 16h14l4 8v29H17V24Z" />
      <path d="M17 32h22v13H17Z" fill="var(--yuzu-pale)" />
      <path d="M21 36.5h14M21 41h8" fill="none" />
    </>,
  ),
});
