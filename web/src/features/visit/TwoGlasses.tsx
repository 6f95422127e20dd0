/** Two glasses side by side: every test both have, and what the difference shows. */
import type { ReactElement } from "react";

import { useReference } from "../../api/hooks";
import type { Value } from "../../api/types";
import { best, between } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { useVisitContext } from "./context";

function overlaps(a: Value, b: Value): boolean {
  if (!a.range || !b.range) return a.words === b.words;
  return (a.range.high === null || b.range.low <= a.range.high) && (b.range.high === null || a.range.low <= b.range.high);
}

export function TwoGlasses(): ReactElement | null {
  const { picked, second, lookOf, valuesOf, units, beside } = useVisitContext();
  const names = useReference().data?.analytes ?? [];
  if (!picked || !second) return null;
  const [a, b] = [valuesOf(picked), valuesOf(second)];
  const both = [...new Set([...Object.keys(a), ...Object.keys(b)])];
  return (
    <section className="pt-2 pb-6" aria-labelledby="two-title">
      <div className="flex justify-between items-center mb-3"><h1 id="two-title">{picked.name} and {second.name}</h1><button className="key" onClick={() => beside(second.id)}>Back to one glass</button></div>
      <div className="flex gap-10 items-end mb-4"><Glass look={lookOf(picked)} h={190} label={picked.name} pick={1} /><Glass look={lookOf(second)} h={190} label={second.name} pick={2} /></div>
      <table className="w-full max-w-[860px] text-b">
        <thead><tr className="text-left border-b-[1.5px] border-ink"><th className="py-1">Test</th><th>{picked.name}</th><th>{second.name}</th><th>What it shows</th></tr></thead>
        <tbody>{both.map((k) => {
          const [x, y] = [a[k], b[k]];
          const words = !x || !y ? "tested in one only" : overlaps(x, y) ? "no difference shown" : (x.range?.best ?? 0) > (y.range?.best ?? 0) ? `less in ${second.name.toLowerCase()}` : `more in ${second.name.toLowerCase()}`;
          return <tr key={k} className="border-b border-rule"><td className="py-2">{names.find((n) => n.id === k)?.name ?? k}</td>{[x, y].map((v, i) => <td key={i}>{v ? <><b>{best(k, v, units)}</b>{v.range && <span className="block text-s text-ink-2">between {between(k, v.range, units)}</span>}</> : <span className="text-ink-3">not tested</span>}</td>)}<td className="text-ink-2">{words}</td></tr>;
        })}</tbody>
      </table>
    </section>
  );
}
