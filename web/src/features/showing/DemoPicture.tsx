/** A small drawing of each demonstration, as it stands on the table. */
import type { ReactElement, ReactNode } from "react";

const ink = {
  stroke: "var(--ink)",
  strokeWidth: 1.75,
  strokeLinejoin: "round",
  strokeLinecap: "round",
  fill: "var(--paper)",
} as const;
const glass = (x: number, fill: string, level: number): ReactNode => (
  <>
    <path d={`M${x},14h14l-2,32h-10Z`} />
    <path d={`M${x + 1},${level}h12l-1.2,${44 - level}h-9.600Z`} fill={fill} stroke="none" />
  </>
);

const DRAWN: Record<string, ReactNode> = {
  glass: glass(21, "var(--water-2)", 22),
  side_by_side: (
    <>
      <path d="M8,12H48V20H8ZM8,26H34V34H8ZM8,40H18V48H8Z" fill="var(--water-2)" />
      <path d="M8,8V52" fill="none" />
    </>
  ),
  lather: (
    <>
      <path d="M12,12h12v36q-6,5 -12,0ZM32,12h12v36q-6,5 -12,0Z" />
      <path d="M33,30h10v17q-5,3.500 -10,0Z" fill="var(--water-2)" stroke="none" />
      <circle cx="36" cy="26" r="3" />
      <circle cx="41" cy="24" r="2.600" />
      <circle cx="38" cy="20" r="2.200" />
    </>
  ),
  colour: (
    <>
      {glass(10, "var(--tea)", 20)}
      {glass(32, "var(--water)", 20)}
    </>
  ),
  chlorine: (
    <>
      <path d="M20,8h16v6H20ZM22,14h12v36H22Z" />
      <path d="M23,26h10v23H23Z" fill="var(--water)" stroke="none" />
      <circle cx="26" cy="38" r="1.600" />
      <circle cx="30" cy="31" r="1.600" />
    </>
  ),
  kettle: (
    <>
      <path d="M14,18H40L44,48H10Z" />
      <path d="M40,22L50,16L52,20L43,30ZM14,20C4,22 5,38 11,40" />
      <path d="M11,42l5,-3l6,2l6,-3l7,2l8,-1l.5,8H10Z" fill="var(--gloss)" />
    </>
  ),
  breath: (
    <>
      {glass(12, "var(--water-2)", 20)}
      <path d="M20,44L34,6h8" fill="none" />
      <circle cx="18" cy="36" r="1.600" />
      <circle cx="22" cy="30" r="1.600" />
      <path d="M36,26h12M36,34h12M36,42h12" fill="none" />
    </>
  ),
  distilling: (
    <>
      <path d="M16,8h8v12l9,22q1,6 -5,6H12q-6,0 -5,-6l9,-22Z" />
      <path d="M10,36h20l3,7q0,4 -5,4H12q-5,0 -5,-4Z" fill="var(--water-3)" stroke="none" />
      <path d="M24,12L44,24V34" fill="none" />
      <path d="M38,36h12l-2,12h-8Z" />
    </>
  ),
  tasting: (
    <>
      <path d="M4,22h14l-2,26H6ZM21,22h14l-2,26H23ZM38,22h14l-2,26H40Z" />
      <path d="M8,34h6M25,34h6M42,34h6" />
    </>
  ),
  through: (
    <>
      <path d="M2,30H54" strokeWidth="6" stroke="var(--water-2)" />
      <path d="M14,14h10v30H14ZM32,14h10v30H32Z" />
      <path d="M15,26h8v17h-8ZM33,26h8v17h-8Z" fill="var(--yuzu-pale)" stroke="none" />
    </>
  ),
};

export function DemoPicture({ kind }: { kind: string }): ReactElement {
  return (
    <svg width="48" height="48" viewBox="0 0 56 56" aria-hidden="true" className="shrink-0">
      <g {...ink}>{DRAWN[kind] ?? DRAWN.glass}</g>
    </svg>
  );
}
