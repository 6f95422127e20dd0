/**
 * The firm's catalogue: what is sold, out as a file, and in again with a preview, all rows or none.
 */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useCatalogue } from "../../api/hooks";
import type { CataloguePreview } from "../../api/types";
import { upload } from "../../api/upload";
import { money } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { FileKey } from "../../ui/FileKey";
import { Trouble, Waiting } from "../../ui/Trouble";
import { KIND_NAMES } from "../treating/kinds";
import { OffSale, SaleNote, useSale } from "./OffSale";
import { say } from "../../app/language";

/** What a row of a file does to the catalogue, or why it cannot be used. */
function changeOf(row: CataloguePreview["rows"][number]): string {
  if (row.change === "error") return `${row.where}: ${row.error} ${row.remedy}`;
  if (row.change === "changed") return say("changed: {x}", { x: row.fields.join(", ") });
  return say("new");
}

function Preview({
  p,
  may,
  busy,
  onStore,
  onLeave,
}: {
  p: CataloguePreview;
  may: boolean;
  busy: boolean;
  onStore: () => void;
  onLeave: () => void;
}): ReactElement {
  const n = (c: string): number => p.rows.filter((r) => r.change === c).length;
  const told = p.rows.filter((r) => r.change !== "same");
  return (
    <div className="border-[1.5px] border-ink bg-slip p-4 my-3" role="status">
      <p className="font-semibold mb-2">
        {p.good
          ? say("{x} new, {x2} changed, {x3} the same", {
              x: n("new"),
              x2: n("changed"),
              x3: n("same"),
            })
          : say("{x} of {length} rows cannot be used: nothing is stored", {
              x: n("error"),
              length: p.rows.length,
            })}
      </p>
      <ul className="max-h-[260px] overflow-auto scroll text-m" tabIndex={-1}>
        {told.slice(0, 200).map((r) => (
          <li key={r.row} className="flex gap-3 py-1 border-b border-rule">
            <StateMark kind={r.change === "error" ? "no" : "done"} size={16} />
            <span className="w-16 text-ink-2 shrink-0">{say("row {row}", { row: r.row })}</span>
            <b className="w-56 shrink-0 truncate">{r.name || r.code || say("no name")}</b>
            <span>{changeOf(r)}</span>
          </li>
        ))}
      </ul>
      <div className="flex gap-2 mt-3">
        {may ? (
          <button
            className="key"
            style={{ background: "var(--ink)", color: "var(--paper)" }}
            disabled={!p.good || busy || told.length === 0}
            onClick={onStore}
          >
            {told.length === 0
              ? say("Nothing to store")
              : say("Store all {length}", { length: p.rows.length })}
          </button>
        ) : (
          <p className="text-m text-ink-2 self-center">{say("A manager may store it.")}</p>
        )}
        <button className="key bare" onClick={onLeave}>
          {say("Leave it")}
        </button>
      </div>
    </div>
  );
}

/** How many items there are; out as a file, and in. */
function Top({
  many,
  busy,
  onFile,
}: {
  many: number | undefined;
  busy: boolean;
  onFile: (f: File) => void;
}): ReactElement {
  return (
    <div className="flex items-end gap-3 flex-wrap mb-2">
      <h2 id="catalogue-title" className="flex-1">
        {say("Catalog")}
        {many !== undefined && say(", {many} items", { many })}
      </h2>
      <a className="key" href="/api/catalogue/file?form=csv" download>
        <Download size={20} aria-hidden="true" />
        {say("CSV")}
      </a>
      <a className="key" href="/api/catalogue/file?form=json" download>
        <Download size={20} aria-hidden="true" />
        {say("JSON")}
      </a>
      <FileKey
        label={say("Catalog file")}
        accept=".csv,.json,text/csv,application/json"
        words={say("Bring in a file")}
        busy={busy}
        onFile={onFile}
      />
    </div>
  );
}

type Item = NonNullable<ReturnType<typeof useCatalogue>["data"]>[number];

function KindField({
  kinds,
  kind,
  onKind,
}: {
  kinds: string[];
  kind: string;
  onKind: (kind: string) => void;
}): ReactElement {
  return (
    <label className="field w-[280px] mb-2">
      <span>{say("Kind")}</span>
      <select className="input" value={kind} onChange={(e) => onKind(e.target.value)}>
        <option value="">{say("all")}</option>
        {kinds.map((k) => (
          <option key={k} value={k}>
            {KIND_NAMES[k] ?? k}
          </option>
        ))}
      </select>
    </label>
  );
}

function Items({
  items,
  currency,
  onOff,
}: {
  items: Item[];
  currency: string;
  /** Takes an item off sale, for who may. */
  onOff: ((code: string) => void) | null;
}): ReactElement {
  const [kind, setKind] = useState("");
  const list = items.filter((i) => kind === "" || i.figures.kind === kind);
  const kinds = [...new Set(items.map((i) => i.figures.kind))].sort();
  return (
    <>
      <KindField kinds={kinds} kind={kind} onKind={setKind} />
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={say("Items")}>
        <table className="w-full text-m">
          <thead>
            <tr className="text-left border-b-[1.5px] border-ink">
              <th className="py-2 pr-3">{say("Item")}</th>
              <th className="pr-3">{say("Kind")}</th>
              <th className="pr-3">{say("For")}</th>
              <th className="pr-3 text-right">{say("Price")}</th>
              <th className="pr-3 text-right">{say("Installing")}</th>
              <th className="pr-3 text-right">{say("Rented")}</th>
              <th>{say("Priced on")}</th>
              {onOff && <th className="sr-only">{say("Off sale")}</th>}
            </tr>
          </thead>
          <tbody>
            {list.map((i) => (
              <tr key={i.code} className="border-b border-rule">
                <th scope="row" className="text-left py-2 pr-3 font-semibold">
                  {i.name}
                  <span className="block font-normal text-s text-ink-2">
                    {i.code}, {i.maker}
                  </span>
                </th>
                <td className="pr-3">{KIND_NAMES[i.figures.kind] ?? i.figures.kind}</td>
                <td className="pr-3 text-ink-2">{i.for_what}</td>
                <td className="pr-3 text-right">{money(i.price, currency, true)}</td>
                <td className="pr-3 text-right">{money(i.installation, currency, true)}</td>
                <td className="pr-3 text-right whitespace-nowrap">
                  {i.lets.map((l) => (
                    <span key={l.kind} className="block">
                      {say("{per_month} a month{x}", {
                        per_month: money(l.per_month, currency, true),
                        x: l.kind === "rent_to_own" ? `, own after ${l.months}` : "",
                      })}
                    </span>
                  ))}
                </td>
                <td className="whitespace-nowrap">{i.priced_on}</td>
                {onOff && (
                  <td className="text-right">
                    <button
                      className="key bare"
                      aria-label={say("Take {name} off sale", { name: i.name })}
                      onClick={() => onOff(i.code)}
                    >
                      {say("Off sale")}
                    </button>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** What a firm that begins is told: examples are on sale, or nothing is. */
function Beginning({ may, empty }: { may: boolean; empty: boolean }): ReactElement | null {
  const client = useQueryClient();
  const examples = useQuery({
    queryKey: ["catalogue", "examples"],
    queryFn: () => data(api.GET("/api/catalogue/examples")),
  });
  const off = useMutation({
    mutationFn: () => data(api.POST("/api/catalogue/examples/take-off")),
    onSuccess: () => client.invalidateQueries({ queryKey: ["catalogue"] }),
  });
  const many = examples.data?.on_sale ?? 0;
  if (empty)
    return (
      <p className="bg-yuzu-pale px-4 py-3 mb-2 font-semibold">
        {say("Nothing is on sale, so no equipment can be proposed. Bring in a catalog file.")}
      </p>
    );
  if (many === 0) return null;
  return (
    <div className="bg-yuzu-pale px-4 py-3 mb-2 flex gap-3 items-center flex-wrap">
      <p className="flex-1 min-w-[280px]">
        {say(
          "{many} items are examples: their makers and prices are invented. Save the CSV, put in " +
            "what you sell, bring it in again, and take the rest off sale.",
          { many },
        )}
      </p>
      {may && (
        <button className="key" disabled={off.isPending} onClick={() => off.mutate()}>
          {say("Take all examples off sale")}
        </button>
      )}
      <Trouble error={off.error} />
    </div>
  );
}

export function Catalogue({ may, currency }: { may: boolean; currency: string }): ReactElement {
  const sale = useSale();
  const items = useCatalogue();
  const client = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const type = (f: File): string => (f.name.endsWith(".json") ? "application/json" : "text/csv");
  const preview = useMutation({
    mutationFn: (f: File) => upload<CataloguePreview>("/api/catalogue/preview", f, type(f)),
    onMutate: (f) => setFile(f),
  });
  const bring = useMutation({
    mutationFn: (f: File) =>
      upload<CataloguePreview>(
        `/api/catalogue/import?on=${preview.data?.revision ?? ""}`,
        f,
        type(f),
      ),
    onSuccess: () => {
      setFile(null);
      preview.reset();
      void client.invalidateQueries({ queryKey: ["catalogue"] });
    },
  });
  return (
    <section id="catalogue" aria-labelledby="catalogue-title">
      <Top many={items.data?.length} busy={preview.isPending} onFile={(f) => preview.mutate(f)} />
      <p className="text-m text-ink-2 mb-2">
        {say(
          "Price and figures are those a system is worked out with today. Proposals keep the " +
            "figures of their day.",
        )}
      </p>
      <Trouble error={preview.error ?? bring.error} />
      {bring.isSuccess && !file && (
        <p role="status" className="text-leaf font-semibold">
          {say("Stored.")}
        </p>
      )}
      {preview.data && file && (
        <Preview
          p={preview.data}
          may={may}
          busy={bring.isPending}
          onStore={() => bring.mutate(file)}
          onLeave={() => {
            setFile(null);
            preview.reset();
          }}
        />
      )}
      {items.isPending && <Waiting what={say("Fetching the catalog.")} />}
      {items.data && <Beginning may={may} empty={items.data.length === 0} />}
      <SaleNote sale={sale} />
      <Items
        items={items.data ?? []}
        currency={currency}
        onOff={may ? (code) => sale.mutate({ code, on: false }) : null}
      />
      <OffSale sale={sale} may={may} />
    </section>
  );
}
