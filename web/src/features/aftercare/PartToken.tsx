/** A part as it lies on the van: cartridge, lamp, bag, membrane, bottle. */
import type { ReactElement } from "react";

const FILL: Record<string, string> = {
  filter: "var(--pleats)",
  membrane: "var(--water-2)",
  resin: "var(--resin)",
  media: "var(--calcite)",
};

function Cartridge({ fill }: { fill: string }): ReactElement {
  return (
    <>
      <rect x="7" y="8" width="16" height="32" fill={fill} stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M12,9v30M18,9v30" stroke="var(--ink)" strokeWidth="1" opacity="0.5" />
      <path d="M4,5h22v4H4zM4,39h22v4H4z" fill="var(--ink)" />
    </>
  );
}

function Lamp(): ReactElement {
  return (
    <>
      <path d="M10,4h10v7H10z" fill="var(--ink)" />
      <path d="M11,11h8v30q-4,4 -8,0z" fill="var(--slip)" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M15,15v22" stroke="var(--lamp)" strokeWidth="3" strokeLinecap="round" />
    </>
  );
}

function Bag({ fill }: { fill: string }): ReactElement {
  return (
    <path
      d="M6,12l3,-5h12l3,5q3,18 0,30H6q-3,-14 0,-30Z"
      fill={fill}
      stroke="var(--ink)"
      strokeWidth="1.6"
    />
  );
}

function Wrench(): ReactElement {
  return (
    <path
      d="M11,4v9l4,4l4,-4V4q6,4 3,11l-4,5v22h-6V20l-4,-5q-3,-7 3,-11Z"
      fill="var(--slip)"
      stroke="var(--ink)"
      strokeWidth="1.6"
    />
  );
}

/** A carbon cartridge is dark, whatever it is called. */
function fillOf(kind: string, label: string): string {
  if (kind === "filter" && /carbon/i.test(label)) return "var(--carbon)";
  return FILL[kind] ?? "var(--slip)";
}

/** A glass for a test. */
function GlassToken(): ReactElement {
  return (
    <>
      <path d="M6,8H24L21,40H9Z" fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.8} />
      <path
        d="M7.400,22H22.600L21,40H9Z"
        fill="var(--water)"
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
    </>
  );
}

/** What is drawn for a kind of part or work; a cartridge where it has no picture of its own. */
function pictureOf(kind: string, fill: string): ReactElement {
  switch (kind) {
    case "lamp":
      return <Lamp />;
    case "media":
    case "resin":
      return <Bag fill={fill} />;
    case "service":
    case "part":
      return <Wrench />;
    case "test":
      return <GlassToken />;
    default:
      return <Cartridge fill={fill} />;
  }
}

export function PartToken({
  kind,
  label = "",
  size = 34,
}: {
  kind: string;
  label?: string;
  size?: number;
}): ReactElement {
  return (
    <svg viewBox="0 0 30 46" width={size * 0.65} height={size} aria-hidden="true">
      {pictureOf(kind, fillOf(kind, label))}
    </svg>
  );
}
