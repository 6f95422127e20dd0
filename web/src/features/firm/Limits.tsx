/** Limits and bands: data with their source and year. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useReference, type FirmView } from "../../api/hooks";
import type { Rules } from "../../api/types";
import { Trouble } from "../../ui/Trouble";

export function Limits({ firm, may }: { firm: FirmView; may: boolean }): ReactElement {
  const [rules, setRules] = useState<Rules>(firm.rules);
  const client = useQueryClient();
  const names = useReference().data?.analytes ?? [];
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PUT("/api/firm", { body: { version: firm.version, settings: firm.settings, rules } }),
      ),
    onSuccess: () => void client.invalidateQueries({ queryKey: ["firm"] }),
  });
  const set = (i: number, part: Partial<Rules["limits"][number]>): void =>
    setRules({ ...rules, limits: rules.limits.map((x, k) => (k === i ? { ...x, ...part } : x)) });
  return (
    <section id="limits">
      <div className="flex justify-between items-center flex-wrap gap-2">
        <h2>Limits, with source and year</h2>
        <span className="text-m text-ink-2">
          version {firm.rules.version}; a visit keeps the limits of its day
        </span>
      </div>
      {may && firm.news.length > 0 && (
        <details className="bg-yuzu-pale px-4 my-2">
          <summary className="min-h-11 flex items-center cursor-pointer font-semibold">
            {firm.news.length === 1
              ? "1 published limit is new here, and in force"
              : `${firm.news.length} published limits are new here, and in force`}
          </summary>
          <ul className="list-disc pl-6 pb-2">
            {firm.news.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </details>
      )}
      <div className="overflow-x-auto">
        <table className="w-full text-m min-w-[820px]">
          <thead>
            <tr className="text-left border-b-[1.5px] border-ink">
              <th className="py-1">What</th>
              <th>Limit</th>
              <th>Name</th>
              <th>Source</th>
              <th>Year</th>
              <th>Judges</th>
            </tr>
          </thead>
          <tbody>
            {rules.limits.map((x, i) => {
              const a = names.find((n) => n.id === x.analyte);
              return (
                <tr key={x.id} className="border-b border-rule">
                  <td className="py-1 pr-2">{a?.name ?? x.analyte}</td>
                  <td className="pr-2 py-1">
                    <span className="flex items-center gap-2 whitespace-nowrap">
                      {x.op === "at_most" ? "at most" : "at least"}
                      <input
                        className="input"
                        style={{ width: 108, minHeight: 44, padding: "4px 8px" }}
                        disabled={!may}
                        aria-label={`${a?.name ?? x.analyte}, ${x.name}, limit`}
                        defaultValue={x.value}
                        onBlur={(e) => {
                          const n = Number(e.target.value);
                          if (Number.isFinite(n)) set(i, { value: n });
                        }}
                      />
                      {a?.unit.replace(" as CaCO3", "")}
                    </span>
                  </td>
                  <td className="pr-2">
                    {x.name} ({x.place})
                  </td>
                  <td className="pr-2 text-ink-2">{x.source}</td>
                  <td className="pr-2">
                    <input
                      className="input"
                      style={{ width: 84, minHeight: 44, padding: "4px 8px" }}
                      disabled={!may}
                      aria-label={`${a?.name ?? x.analyte}, ${x.name}, year`}
                      defaultValue={x.year}
                      onBlur={(e) => {
                        const n = Math.round(Number(e.target.value));
                        if (n) set(i, { year: n });
                      }}
                    />
                  </td>
                  <td>
                    <input
                      type="checkbox"
                      className="w-6 h-6 accent-[#1D6A4C]"
                      disabled={!may}
                      aria-label={`${a?.name ?? x.analyte}, ${x.name}, judges`}
                      checked={x.governs}
                      onChange={(e) => set(i, { governs: e.target.checked })}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {may && (
        <AddLimit
          names={names}
          onAdd={(x) => setRules({ ...rules, limits: [...rules.limits, x] })}
        />
      )}
      <Trouble error={save.error} />
      {save.isSuccess && (
        <p role="status" className="text-leaf font-semibold mt-2">
          Kept as version {firm.rules.version}.
        </p>
      )}
      {may && (
        <button className="key go mt-3" disabled={save.isPending} onClick={() => save.mutate()}>
          Keep these limits
        </button>
      )}
    </section>
  );
}

type Limit = Rules["limits"][number];
const ABOUT: [Limit["about"], string][] = [
  ["health", "health"],
  ["infants", "infants"],
  ["taste", "taste"],
  ["stains", "stains"],
  ["equipment", "equipment and pipes"],
  ["diet", "diet"],
];

/** A limit of the firm's own, with its source and year; it is kept with the others. */
function AddLimit({
  names,
  onAdd,
}: {
  names: { id: string; name: string; unit: string }[];
  onAdd: (x: Limit) => void;
}): ReactElement {
  const [analyte, setAnalyte] = useState("arsenic");
  const [about, setAbout] = useState<Limit["about"]>("health");
  const [value, setValue] = useState("");
  const [name, setName] = useState("");
  const [place, setPlace] = useState("");
  const [source, setSource] = useState("");
  const [year, setYear] = useState("");
  const n = Number(value.replace(",", "."));
  const good =
    value !== "" && Number.isFinite(n) && n >= 0 && name && source && Number(year) > 1899;
  const unit = names.find((a) => a.id === analyte)?.unit ?? "";
  const text = (label: string, v: string, set: (v: string) => void): ReactElement => (
    <label className="field">
      <span>{label}</span>
      <input className="input" value={v} onChange={(e) => set(e.target.value)} />
    </label>
  );
  return (
    <details className="mt-2">
      <summary className="min-h-11 flex items-center cursor-pointer font-semibold">
        Add a limit
      </summary>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-3 items-end">
        <label className="field">
          <span>What</span>
          <select className="input" value={analyte} onChange={(e) => setAnalyte(e.target.value)}>
            {names.map((a) => (
              <option key={a.id} value={a.id}>
                {a.name}
              </option>
            ))}
          </select>
        </label>
        {text(`At most [${unit}]`, value, setValue)}
        <label className="field">
          <span>About</span>
          <select
            className="input"
            value={about}
            onChange={(e) => setAbout(e.target.value as Limit["about"])}
          >
            {ABOUT.map(([k, w]) => (
              <option key={k} value={k}>
                {w}
              </option>
            ))}
          </select>
        </label>
        {text("Name", name, setName)}
        {text("Country or body", place, setPlace)}
        {text("Source", source, setSource)}
        {text("Year", year, setYear)}
        <button
          type="button"
          className="key"
          disabled={!good}
          onClick={() => {
            onAdd({
              id: `own.${analyte}.${Date.now().toString(36)}`,
              analyte,
              op: "at_most",
              value: n,
              about,
              name,
              place,
              source,
              year: Math.round(Number(year)),
              governs: true,
              note: "",
            });
            setValue("");
          }}
        >
          Add it to the list
        </button>
      </div>
    </details>
  );
}
