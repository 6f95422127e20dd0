/** The glass: where its walls stand, and how thick it is drawn at a height. */
export const G = { rim: 8, foot: 129, deep: 137, floor: 116, rw: 36, fw: 29, fill: 29 };
export const outerHalf = (y: number): number =>
  G.rw - ((G.rw - G.fw) * (y - G.rim)) / (G.foot - G.rim);
export const half = (y: number): number => outerHalf(y) - 2.9;
export const EDGE = "var(--drawn)";
export const OUTER = [
  `M${50 - G.rw},${G.rim} L${50 - outerHalf(126)},126`,
  `Q${50 - outerHalf(129) + 0.3},${G.foot + 3.4} 28,${G.deep - 2.2}`,
  `Q50,${G.deep + 1.6} 72,${G.deep - 2.2}`,
  `Q${50 + outerHalf(129) - 0.3},${G.foot + 3.4} ${50 + outerHalf(126)},126`,
  `L${50 + G.rw},${G.rim}`,
].join(" ");
export const YS = G.fill;
export const BODY = [
  `M${50 - half(YS)},${YS} L${50 - half(G.floor)},${G.floor - 2}`,
  `Q${50 - half(G.floor) + 1},${G.floor + 2.4} 31,${G.floor + 3.6}`,
  `Q50,${G.floor + 5.6} 69,${G.floor + 3.6}`,
  `Q${50 + half(G.floor) - 1},${G.floor + 2.4} ${50 + half(G.floor)},${G.floor - 2}`,
  `L${50 + half(YS)},${YS} Z`,
].join(" ");
export const HEEL = [
  `M0,${G.floor - 2} H14 Q${50 - half(G.floor) + 1},${G.floor + 2.4} 31,${G.floor + 3.6}`,
  `Q50,${G.floor + 5.6} 69,${G.floor + 3.6}`,
  `Q${50 + half(G.floor) - 1},${G.floor + 2.4} 86,${G.floor - 2} H100 V150 H0Z`,
].join(" ");

export interface Size {
  k: number;
  big: boolean;
  mid: boolean;
  chip: boolean;
  line: number;
  fine: number;
}

export type Fits = Pick<Size, "chip" | "mid" | "big">;

/** One of four, for a glass that is a chip, small, middling or big. */
export function bySize(
  s: Fits,
  [chip, small, middling, big]: [number, number, number, number],
): number {
  if (s.chip) return chip;
  if (s.big) return big;
  return s.mid ? middling : small;
}

export function sizeOf(h: number): Size {
  const k = h / 140;
  const big = h >= 300;
  const chip = h < 40;
  return {
    k,
    big,
    chip,
    mid: h >= 70,
    line: bySize({ chip, big, mid: true }, [1.5, 1.9, 1.9, 2.4]) / k,
    fine: (big ? 1.3 : 1) / k,
  };
}
