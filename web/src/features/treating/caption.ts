/**
 * What stands under the glass behind a stage: what was found in this water, and the pH where it
 * changes.
 */
import type { Finding, Quantity } from "../../api/types";
import { ANALYTE_NAMES } from "../../app/facts.generated";
import { midSentence } from "../../app/names";
import { best } from "../../app/show";
import { spoken, say } from "../../app/language";

const MOST = 2;
const SHORT: Record<string, string> = spoken({
  hardness: "hardness ",
  tds: "TDS ",
  ph: "",
  chlorine_free: "chlorine ",
  chlorine_total: "total chlorine ",
  chlorine_combined: "chloramine ",
  iron: "iron ",
  nitrate_n: "nitrate ",
  coliform: "coliform ",
  e_coli: "E. coli ",
});

function said(analyte: string, q: Quantity, units: string): string {
  const lead = SHORT[analyte] ?? `${midSentence(ANALYTE_NAMES[analyte] ?? analyte)} `;
  const text = best(analyte, q, units);
  return analyte === "ph" && !text.startsWith("pH") ? say("pH {text}", { text }) : `${lead}${text}`;
}

function known(q: Quantity | undefined): q is Quantity {
  return q !== undefined && (q.range !== null || q.words !== "");
}

/** What was found, in the order that it matters; what asks for nothing comes after. */
export function inOrder(findings: Finding[]): string[] {
  const weight = (f: Finding): number =>
    ({ health: 0, act: 1, notice: 2 })[f.weight as string] ?? 3;
  const sorted = [...findings].sort(
    (a, b) => weight(a) - weight(b) || b.explains.length - a.explains.length,
  );
  return [...new Set([...sorted.map((f) => f.analyte), "hardness", "tds"])];
}

/** How much of something a stage takes out or puts in, as a share of what came. */
function moved(a: string, q: Quantity, before: Record<string, Quantity>): number {
  const [was, now] = [before[a]?.range?.best, q.range?.best];
  if (was === undefined || now === undefined) return 0;
  if (a === "ph") return was === now ? 0 : 1;
  return Math.abs(was - now) / Math.max(was, now, 1e-9);
}

export function caption(
  q: Record<string, Quantity>,
  order: string[],
  units: string,
  before?: Record<string, Quantity>,
): string {
  const share = (a: string): number => (before ? moved(a, q[a] as Quantity, before) : 0);
  const told = [...new Set([...order, "ph"])].filter(
    (a) => known(q[a]) && (a !== "ph" || share(a)),
  );
  const shown = [...told].sort((a, b) => share(b) - share(a)).slice(0, MOST);
  const out = shown.map((a) => said(a, q[a] as Quantity, units));
  return out.length > 0 ? out.join(", ") : say("nothing tested yet");
}
