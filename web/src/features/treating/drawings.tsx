/** Stages as they look beside the pipe: tank, housing, chamber, membrane. One hand for all. */
import type { ReactElement } from "react";

import { DRAWINGS } from "../../app/technologies.generated";
import { halton } from "../../glass/look";

const INK = "var(--ink)";
const GRAIN: Record<string, [string, string, string]> = {
  softener: ["var(--resin)", "var(--resin-light)", "var(--resin-dark)"],
  carbon: ["var(--carbon)", "var(--carbon-light)", "var(--carbon-dark)"],
  iron_filter: ["var(--rust)", "var(--rust-light)", "var(--rust-dark)"],
  neutraliser: ["var(--calcite)", "var(--calcite-light)", "var(--calcite-dark)"],
  tannin: ["var(--tannin)", "var(--tannin-light)", "var(--resin-dark)"],
  mixed_bed: ["var(--mixed)", "var(--mixed-light)", "var(--resin-dark)"],
  sediment: ["var(--sand)", "var(--sand-light)", "var(--sand-dark)"],
  salt_free: ["var(--screen)", "var(--drawn-water)", "var(--media-dark)"],
  aeration: ["var(--drawn-water)", "var(--plate)", "var(--media-dark)"],
};

function Tank({ kind, brine }: { kind: string; brine: boolean }): ReactElement {
  const [fill, light, dark] = GRAIN[kind] ?? [
    "var(--grain)",
    "var(--grain-light)",
    "var(--grain-dark)",
  ];
  return (
    <g>
      <path d="M58,28h64v30H58z" fill={INK} />
      <circle cx="108" cy="43" r="5.5" fill="var(--yuzu)" />
      <rect x="66" y="35" width="28" height="15" rx="2" fill="var(--water-2)" />
      <path
        d="M62,74 Q62,60 76,60 H104 Q118,60 118,74 V168 Q118,180 106,180 H74 Q62,180 62,168Z"
        fill="var(--slip)"
        stroke={INK}
        strokeWidth="2.2"
      />
      <path d="M64,104H116V168Q116,178 106,178H74Q64,178 64,168Z" fill={fill} />
      {Array.from({ length: 46 }, (_, i) => (
        <circle
          key={i}
          cx={68 + halton(i + 1, 2) * 44}
          cy={109 + halton(i + 1, 3) * 65}
          r="2.3"
          fill={light}
          stroke={dark}
          strokeWidth="0.7"
        />
      ))}
      {brine && (
        <>
          <path d="M122,50H140V112" stroke={INK} strokeWidth="1.8" fill="none" />
          <path d="M128,116h34l-3,64h-28Z" fill="var(--slip)" stroke={INK} strokeWidth="2.2" />
          <path d="M125,112h40v6h-40z" fill={INK} />
          {Array.from({ length: 10 }, (_, i) => (
            <path
              key={i}
              d={
                `M${133 + halton(i + 1, 2) * 20},${150 + halton(i + 1, 3) * 24}` +
                "l3,-2l2.4,2.6l-3,2Z"
              }
              fill="var(--gloss)"
              stroke={INK}
              strokeWidth="0.8"
            />
          ))}
        </>
      )}
    </g>
  );
}

function Housing({ n, fills }: { n: number; fills: string[] }): ReactElement {
  const w = n === 1 ? 46 : 32;
  const x0 = 90 - (n * (w + 6) - 6) / 2;
  return (
    <g>
      <path d={`M${x0 - 8},30h${n * (w + 6) + 10}v22H${x0 - 8}z`} fill={INK} />
      {fills.map((f, i) => {
        const x = x0 + i * (w + 6);
        return (
          <g key={i}>
            <path
              d={`M${x},52h${w}l-2,98q${-(w / 2 - 2)},10 ${-(w - 4)},0Z`}
              fill="var(--slip)"
              stroke={INK}
              strokeWidth="2.1"
            />
            <path
              d={`M${x + w * 0.2},55h${w * 0.6}v82h${-w * 0.6}z`}
              fill={f}
              stroke={INK}
              strokeWidth="1.2"
            />
          </g>
        );
      })}
    </g>
  );
}

/** Hollow fibres in an upright shell: water in below, clear water out above. */
function Fibres(): ReactElement {
  return (
    <g>
      <rect
        x="68"
        y="44"
        width="44"
        height="128"
        rx="10"
        fill="var(--slip)"
        stroke={INK}
        strokeWidth="2.2"
      />
      {[76, 82, 88, 94, 100].map((x) => (
        <path key={x} d={`M${x},58q4,26 0,50t0,50`} stroke={INK} strokeWidth="1.1" fill="none" />
      ))}
      <path d="M62,36h56v12H62zM62,168h56v12H62z" fill={INK} />
      <path d="M112,66h22M112,150h22" stroke={INK} strokeWidth="7" />
      <path d="M112,66h22M112,150h22" stroke="var(--water-2)" strokeWidth="3.4" />
    </g>
  );
}

/** Spiral membrane over its tank. */
function Membrane(): ReactElement {
  return (
    <g>
      <path d="M44,30h92v20H44z" fill={INK} />
      <path d="M50,50h80v34H50z" fill="var(--slip)" stroke={INK} strokeWidth="2.1" />
      <path d="M56,57h68v20H56z" fill="var(--water-2)" stroke={INK} strokeWidth="1.2" />
      {[66, 78, 90, 102, 114].map((x) => (
        <path key={x} d={`M${x},57q4,10 0,20`} stroke={INK} strokeWidth="1" fill="none" />
      ))}
      <path d="M90,84v14" stroke={INK} strokeWidth="2" />
      <path
        d="M64,118q0,-20 26,-20t26,20v44q0,18 -26,18t-26,-18Z"
        fill="var(--slip)"
        stroke={INK}
        strokeWidth="2.1"
      />
      <path
        d="M65.500,136q24,8 49,0v27q0,15.500 -24.500,15.500t-24.500,-15.500Z"
        fill="var(--water-2)"
      />
    </g>
  );
}

/** A lamp in its chamber, with its ballast. */
function Lamp(): ReactElement {
  return (
    <g>
      <rect
        x="34"
        y="62"
        width="112"
        height="34"
        rx="9"
        fill="var(--slip)"
        stroke={INK}
        strokeWidth="2.2"
      />
      <path d="M44,79h92" stroke="var(--lamp)" strokeWidth="7" strokeLinecap="round" />
      <path d="M44,79h92" stroke="var(--lamp-glow)" strokeWidth="2.4" strokeLinecap="round" />
      <path d="M60,32v30M120,32v30" stroke={INK} strokeWidth="8" />
      <path d="M60,32v30M120,32v30" stroke="var(--water-2)" strokeWidth="4" />
      <rect x="66" y="112" width="48" height="34" rx="4" fill={INK} />
      <circle cx="90" cy="129" r="6" fill="var(--yuzu)" />
    </g>
  );
}

/** Boiling chamber, coil and jug. */
function Still(): ReactElement {
  return (
    <g>
      <path
        d="M52,70h60v84q0,14 -14,14H66q-14,0 -14,-14Z"
        fill="var(--slip)"
        stroke={INK}
        strokeWidth="2.2"
      />
      <path d="M54,112h56v42q0,12 -12,12H66q-12,0 -12,-12Z" fill="var(--water-2)" />
      <path
        d="M82,70V52q0,-14 18,-14h26q16,0 16,16v60"
        stroke={INK}
        strokeWidth="2.2"
        fill="none"
      />
      <path d="M128,118h28l-3,44h-22Z" fill="var(--slip)" stroke={INK} strokeWidth="2.2" />
    </g>
  );
}

/** A pitcher with its cartridge. */
function Pitcher(): ReactElement {
  return (
    <g>
      <path d="M58,52h58l-6,122H66Z" fill="var(--slip)" stroke={INK} strokeWidth="2.2" />
      <path d="M62,104h50l-3,68H67Z" fill="var(--water-2)" />
      <path d="M74,54h28v42l-14,8l-14,-8Z" fill="var(--carbon)" stroke={INK} strokeWidth="1.4" />
      <path d="M116,66q26,4 22,44q-4,22 -25,24" stroke={INK} strokeWidth="5" fill="none" />
    </g>
  );
}

/** Anything else: a box with a dial. */
function Box(): ReactElement {
  return (
    <g>
      <rect
        x="62"
        y="52"
        width="56"
        height="46"
        rx="6"
        fill="var(--slip)"
        stroke={INK}
        strokeWidth="2.2"
      />
      <circle cx="90" cy="75" r="12" fill="var(--water-2)" stroke={INK} strokeWidth="1.6" />
      <path d="M90,75l6,-7" stroke={INK} strokeWidth="2" />
    </g>
  );
}

const bed = (kind: string): ReactElement => <Tank kind={kind} brine={false} />;
const brined = (kind: string): ReactElement => <Tank kind={kind} brine />;
const filled = (colour: string) => (): ReactElement => <Housing n={1} fills={[colour]} />;

/** Drawing's key -> the drawing of that kind of stage. */
const DRAWN: Record<string, (kind: string) => ReactElement> = {
  ultrafiltration: () => <Fibres />,
  softener: brined,
  tannin: brined,
  mixed_bed: brined,
  iron_filter: bed,
  neutraliser: bed,
  aeration: bed,
  nitrate: bed,
  arsenic: bed,
  salt_free: bed,
  carbon: bed,
  tap_carbon: filled("var(--carbon)"),
  sediment: filled("var(--pleats)"),
  cartridge: filled("var(--calcite)"),
  membrane: () => <Membrane />,
  uv: () => <Lamp />,
  distiller: () => <Still />,
  pitcher: () => <Pitcher />,
};

export function Drawing({ kind }: { kind: string }): ReactElement {
  return DRAWN[DRAWINGS[kind] ?? kind]?.(kind) ?? <Box />;
}

export function SourceDrawing({ source }: { source: string }): ReactElement {
  if (source === "city")
    return (
      <g>
        <path d="M24,176V96l26,-18l26,18v80Z" fill="var(--slip)" stroke={INK} strokeWidth="2.2" />
        <path d="M38,176v-34h24v34" fill="var(--water-2)" stroke={INK} strokeWidth="1.6" />
        <path d="M0,176H180" stroke={INK} strokeWidth="2" />
        <path d="M50,78V38" stroke={INK} strokeWidth="2" />
      </g>
    );
  if (source === "lake" || source === "cistern")
    return (
      <g>
        <path d="M0,116q22,-10 45,0t45,0t45,0t45,0V180H0Z" fill="var(--ground)" opacity="0.7" />
        <path d="M0,116q22,-10 45,0t45,0t45,0t45,0" stroke={INK} strokeWidth="2" fill="none" />
        <path d="M20,140q16,-7 32,0M96,152q16,-7 32,0" stroke={INK} strokeWidth="1.2" fill="none" />
      </g>
    );
  return (
    <g>
      <path d="M0,92C40,84 60,96 90,92S150,84 180,92" stroke={INK} strokeWidth="2" fill="none" />
      <path
        d="M0,124c50,-10 90,10 180,-4M0,146c60,-8 110,12 180,-2"
        stroke="var(--rule)"
        strokeWidth="2"
        fill="none"
      />
      <path d="M0,170q45,-12 90,0t90,0V190H0Z" fill="var(--water-3)" opacity="0.6" />
      <path d="M0,170q45,-12 90,0t90,0" stroke={INK} strokeWidth="1.3" fill="none" />
      <path d="M80,40V178" stroke={INK} strokeWidth="19" />
      <path d="M80,40V178" stroke="var(--water-2)" strokeWidth="15" />
      <path d="M64,78h32v16H64z" fill="var(--paper)" stroke={INK} strokeWidth="2" />
      <path d="M72,158h16v16H72z" fill={INK} />
    </g>
  );
}

export const HouseDrawing = (): ReactElement => (
  <g fill="none">
    <path d="M22,152V84L90,34l68,50v68" stroke={INK} strokeWidth="2.4" />
    {["M52,152V112h16", "M90,152V92h16", "M130,152V112h-14"].map((d) => (
      <g key={d}>
        <path d={d} stroke={INK} strokeWidth="5.4" />
        <path d={d} stroke="var(--water-2)" strokeWidth="2.6" />
      </g>
    ))}
    <path d="M22,152H158" stroke={INK} strokeWidth="2" />
  </g>
);
export const TapDrawing = (): ReactElement => (
  <g fill="none">
    <path d="M70,170V84q0,-32 26,-32t26,26v12" stroke={INK} strokeWidth="9" />
    <path d="M70,170V84q0,-32 26,-32t26,26v12" stroke="var(--water-2)" strokeWidth="5" />
    <path d="M40,170H140" stroke={INK} strokeWidth="2.2" />
    <path
      d="M122,98c4,6 6,9 6,12a6,6 0 0 1 -12,0c0,-3 2,-6 6,-12Z"
      fill="var(--water-2)"
      stroke={INK}
      strokeWidth="1.5"
    />
  </g>
);
