/**
 * Claims: every item's removal of every contaminant with its evidence, also of what was found in no
 * home yet.
 */
import { useState, type ReactElement } from "react";
import { Link, useSearchParams } from "react-router";

import { useCatalogue } from "../../api/hooks";
import type { Item } from "../../api/types";
import { ANALYTE_NAMES, SHOWN } from "../../app/facts.generated";
import { Head } from "../../app/Shell";
import { num } from "../../app/show";
import { Seg } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { said } from "../aftercare/dates";
import { useTrack, type Kept } from "../logbook/hooks";
import { KIND_NAMES } from "../treating/kinds";
import { Documents, useDocuments } from "./Documents";
import { spoken, say } from "../../app/language";

type Effect = Item["effects"][number];
const WORDS: Record<string, string> = spoken({
  measured_here: "measured here",
  certified: "certified",
  tested: "tested",
  maker_states: "maker states",
  typical: "typical",
  no_claim: "no claim",
  does_not_remove: "does not remove",
});
const LEAST: { value: string; name: string; holds: readonly string[] }[] = spoken([
  { value: "certified", name: "Certified", holds: ["certified"] },
  { value: "tested", name: "Tested or better", holds: ["certified", "tested"] },
  { value: "all", name: "All", holds: Object.keys(WORDS) },
]);

interface Row {
  item: Item;
  effect: Effect;
}

function removal(e: Effect): string {
  if (e.out_at_most != null) {
    const shown = SHOWN[e.analyte]?.us;
    const factor = shown?.factor ?? 1;
    return say("at most {x} {x2} left", {
      x: num(e.out_at_most * factor, shown?.decimals ?? 2),
      x2: shown?.unit ?? "",
    });
  }
  if (e.high === 0) return WORDS[e.evidence.level] ?? "";
  const pc = (x: number): string => num(100 * x, x > 0.99 ? 1 : 0);
  return e.low === e.high
    ? `${pc(e.best)} %`
    : say("{best} % ({low} to {high})", { best: pc(e.best), low: pc(e.low), high: pc(e.high) });
}

function proof(e: Effect): string {
  const v = e.evidence;
  return [
    v.standard && say("to {standard}", { standard: v.standard }),
    v.certificate && say("certificate {certificate}", { certificate: v.certificate }),
    v.certifier && say("by {certifier}", { certifier: v.certifier }),
    v.checked_on && say("looked up {checked_on}", { checked_on: said(v.checked_on) }),
    v.note,
  ]
    .filter(Boolean)
    .join(", ");
}

/** What the firm's own jobs measured of a claim: at how many homes it held. */
function Measured({ kept }: { kept: Kept | undefined }): ReactElement | null {
  if (!kept) return null;
  const { homes, as_promised: held, better, few } = kept;
  return (
    <Link className="block text-s" to="/track">
      {say("measured by us at {x}: as promised or better at {x2}{x3}", {
        x: homes === 1 ? "1 home" : `${homes} homes`,
        x2: held + better,
        x3: few ? ", too few to say more" : "",
      })}
    </Link>
  );
}

/** The firm's own evidence, by item and contaminant; nothing for who may not see its record. */
function useMeasured(): (item: Item, analyte: string) => Kept | undefined {
  const own = useTrack().data?.kept ?? [];
  return (item, analyte) => own.find((k) => k.item === item.name && k.analyte === analyte);
}

function Table({ rows }: { rows: Row[] }): ReactElement {
  const documents = useDocuments().data ?? [];
  const measured = useMeasured();
  return (
    <table className="w-full text-m">
      <thead>
        <tr className="text-left border-b-[1.5px] border-ink">
          <th className="py-2 pr-3">{say("Contaminant")}</th>
          <th className="pr-3">{say("Item")}</th>
          <th className="pr-3">{say("Takes out")}</th>
          <th>{say("Evidence")}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ item, effect }) => (
          <tr key={item.code + effect.analyte} className="border-b border-rule align-top">
            <th scope="row" className="py-2 pr-3 text-left">
              {ANALYTE_NAMES[effect.analyte] ?? effect.analyte}
            </th>
            <td className="pr-3 py-2">
              {item.name}
              <span className="block text-s text-ink-2">
                {KIND_NAMES[item.figures.kind] ?? item.figures.kind}, {item.maker}
              </span>
            </td>
            <td className="pr-3 py-2 num">{removal(effect)}</td>
            <td className="py-2">
              <b>{WORDS[effect.evidence.level]}</b>
              {proof(effect) !== "" && (
                <span className="block text-s text-ink-2">{proof(effect)}</span>
              )}
              <Measured kept={measured(item, effect.analyte)} />
              {effect.evidence.certificate !== "" && (
                <Documents
                  item={item.code}
                  certificate={effect.evidence.certificate}
                  lines={documents}
                />
              )}
              {(effect.ph_min != null || effect.ph_max != null) && (
                <span className="block text-s text-ink-2">
                  {say("only from pH {x} to {x2}", {
                    x: effect.ph_min ?? 0,
                    x2: effect.ph_max ?? 14,
                  })}
                </span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export function Claims(): ReactElement {
  const catalogue = useCatalogue();
  const [analyte, setAnalyte] = useState("");
  const [search, setSearch] = useSearchParams();
  const only = search.get("item");
  const [least, setLeast] = useState(only ? "all" : "certified");
  const holds: readonly string[] = LEAST.find((l) => l.value === least)?.holds ?? [];
  const every: Row[] = (catalogue.data ?? []).flatMap((item) =>
    item.effects.map((effect) => ({ item, effect })),
  );
  const names = [...new Set(every.map((r) => r.effect.analyte))].sort();
  const one = catalogue.data?.find((i) => i.code === only);
  const rows = every
    .filter((r) => !one || r.item.code === one.code)
    .filter((r) => holds.includes(r.effect.evidence.level))
    .filter((r) => analyte === "" || r.effect.analyte === analyte)
    .sort(
      (a, b) => a.effect.analyte.localeCompare(b.effect.analyte) || b.effect.best - a.effect.best,
    );
  return (
    <div className="screen plain">
      <Head title={say("Claims")} sub={say("of the catalog, with their evidence")} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10"
          tabIndex={0}
          role="group"
          aria-label={say("Claims")}
        >
          <div className="max-w-[1080px] mx-auto pt-4 grid grid-cols-1 gap-4 [&>*]:min-w-0">
            <h1>{say("Claims and their evidence")}</h1>
            <p className="text-b text-ink-2">
              {say(
                "A certificate counts for its own contaminant only. For what matters to " +
                  "health, only what is certified, or measured here by a laboratory, is " +
                  "established.",
              )}
            </p>
            <div className="flex gap-5 flex-wrap items-end">
              {one && (
                <p className="field">
                  <span>{say("Only")}</span>
                  <button className="key" onClick={() => setSearch({})}>
                    {one.name} <span aria-hidden="true">×</span>
                    <span className="sr-only">{say(", show all items")}</span>
                  </button>
                </p>
              )}
              <label className="field">
                <span>{say("Contaminant")}</span>
                <select
                  className="input"
                  value={analyte}
                  onChange={(e) => setAnalyte(e.target.value)}
                >
                  <option value="">{say("all")}</option>
                  {names.map((a) => (
                    <option key={a} value={a}>
                      {ANALYTE_NAMES[a] ?? a}
                    </option>
                  ))}
                </select>
              </label>
              <Seg label={say("Evidence")} value={least} choices={LEAST} onChange={setLeast} />
              <p role="status" className="text-m">
                {rows.length === 1
                  ? say("1 claim")
                  : say("{length} claims", { length: rows.length })}
              </p>
            </div>
            {catalogue.isPending && <Waiting what={say("Fetching the catalog.")} />}
            <Trouble error={catalogue.error} again={() => void catalogue.refetch()} />
            <Table rows={rows} />
          </div>
        </div>
      </main>
    </div>
  );
}
