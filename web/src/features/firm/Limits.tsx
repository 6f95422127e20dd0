/** Limits and bands: data with their source and year. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useReference, type FirmView } from "../../api/hooks";
import type { Rules } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { spoken, say } from "../../app/language";

type Limit = Rules["limits"][number];
interface Named {
  id: string;
  name: string;
  unit: string;
}

/** A number of a limit: what is no number says so, and is not kept. */
function Figure({
  label,
  width,
  value,
  may,
  onValue,
}: {
  label: string;
  width: number;
  value: number;
  may: boolean;
  onValue: (n: number) => void;
}): ReactElement {
  const [wrong, setWrong] = useState(false);
  return (
    <span>
      <input
        className="input"
        style={{ width, minHeight: 44, padding: "4px 8px" }}
        inputMode="decimal"
        disabled={!may}
        aria-label={label}
        aria-invalid={wrong}
        defaultValue={value}
        onBlur={(e) => {
          const typed = e.target.value.trim().replace(",", ".");
          const n = Number(typed);
          const good = typed !== "" && Number.isFinite(n) && n >= 0;
          setWrong(!good);
          if (good && n !== value) onValue(n);
        }}
      />
      {wrong && (
        <span role="alert" className="block text-s text-zest-ink">
          {say("no number: {value} stays", { value })}
        </span>
      )}
    </span>
  );
}

type News = FirmView["news"][number];

const plainly = (x: Limit, unit: string): string =>
  say("{value} {unit} ({source}, {year})", {
    value: x.value,
    unit,
    source: x.source,
    year: x.year,
  });

function unitOf(names: Named[], x: Limit): string {
  return names.find((a) => a.id === x.analyte)?.unit ?? "";
}

function told({ was, now }: News, names: Named[]): string {
  const what = names.find((a) => a.id === now.analyte)?.name ?? now.analyte;
  const known = { what, name: now.name, to: plainly(now, unitOf(names, now)) };
  return was
    ? say("{what}, {name}: changed from {from} to {to}.", {
        ...known,
        from: plainly(was, unitOf(names, was)),
      })
    : say("{what}, {name}: new, {to}.", known);
}

/** Published limits that changed under the firm's own: each is taken, or the own is kept. */
function Questions({
  firm,
  names,
  typed,
}: {
  firm: FirmView;
  names: Named[];
  typed: boolean;
}): ReactElement {
  const client = useQueryClient();
  const settle = useMutation({
    mutationFn: ({ limit, take }: { limit: string; take: boolean }) =>
      data(
        api.POST("/api/firm/limits/{limit}", {
          params: { path: { limit } },
          body: { version: firm.version, take },
        }),
      ),
    onSettled: () => void client.invalidateQueries({ queryKey: ["firm"] }),
  });
  const key = (limit: string, take: boolean, text: string): ReactElement => (
    <button className="key" disabled={typed} onClick={() => settle.mutate({ limit, take })}>
      {text}
    </button>
  );
  return (
    <ul className="my-2 grid gap-2">
      {typed && <li>{say("Keep what you changed below first, then answer.")}</li>}
      {firm.questions.map((q) => (
        <li key={q.now.id} className="bg-yuzu-pale px-4 py-3">
          <p>
            {told(q, names)}{" "}
            {q.own && say("You have {own}.", { own: plainly(q.own, unitOf(names, q.own)) })}
          </p>
          <p className="flex gap-3 mt-2 flex-wrap">
            {key(
              q.now.id,
              true,
              say("Take {value} {unit}", { value: q.now.value, unit: unitOf(names, q.now) }),
            )}
            {q.own &&
              key(
                q.now.id,
                false,
                say("Keep {value} {unit}", { value: q.own.value, unit: unitOf(names, q.own) }),
              )}
          </p>
        </li>
      ))}
      <Trouble error={settle.error} />
    </ul>
  );
}

function News({ news, names }: { news: News[]; names: Named[] }): ReactElement {
  return (
    <details className="bg-yuzu-pale px-4 my-2">
      <summary className="min-h-11 flex items-center cursor-pointer font-semibold">
        {news.length === 1
          ? say("1 published limit changed, and the new one is in force")
          : say("{length} published limits changed, and the new ones are in force", {
              length: news.length,
            })}
      </summary>
      <ul className="list-disc pl-6 pb-2">
        {news.map((x) => (
          <li key={x.now.id}>{told(x, names)}</li>
        ))}
      </ul>
    </details>
  );
}

function LimitRow({
  x,
  a,
  may,
  set,
}: {
  x: Limit;
  a: Named | undefined;
  may: boolean;
  set: (part: Partial<Limit>) => void;
}): ReactElement {
  return (
    <tr className="border-b border-rule">
      <td className="py-1 pr-2">{a?.name ?? x.analyte}</td>
      <td className="pr-2 py-1">
        <span className="flex items-center gap-2 whitespace-nowrap">
          {x.op === "at_most" ? say("at most") : say("at least")}
          <Figure
            label={say("{x}, {name}, limit", { x: a?.name ?? x.analyte, name: x.name })}
            width={108}
            value={x.value}
            may={may}
            onValue={(value) => set({ value })}
          />
          {a?.unit.replace(" as CaCO3", "")}
        </span>
      </td>
      <td className="pr-2">
        {x.name} ({x.place})
      </td>
      <td className="pr-2 text-ink-2">{x.source}</td>
      <td className="pr-2">
        <Figure
          label={say("{x}, {name}, year", { x: a?.name ?? x.analyte, name: x.name })}
          width={84}
          value={x.year}
          may={may}
          onValue={(year) => set({ year: Math.round(year) })}
        />
      </td>
      <td>
        <input
          type="checkbox"
          className="w-6 h-6 accent-[var(--tick)]"
          disabled={!may}
          aria-label={say("{x}, {name}, judges", { x: a?.name ?? x.analyte, name: x.name })}
          checked={x.governs}
          onChange={(e) => set({ governs: e.target.checked })}
        />
      </td>
    </tr>
  );
}

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
        <h2>{say("Limits, with source and year")}</h2>
        <span className="text-m text-ink-2">
          {say("version {version}; a visit keeps the limits of its day", {
            version: firm.rules.version,
          })}
        </span>
      </div>
      {may && firm.news.length > 0 && <News news={firm.news} names={names} />}
      {may && firm.questions.length > 0 && (
        <Questions firm={firm} names={names} typed={rules !== firm.rules} />
      )}
      <div className="overflow-x-auto">
        <table className="w-full text-m min-w-[820px]">
          <thead>
            <tr className="text-left border-b-[1.5px] border-ink">
              <th className="py-1">{say("What")}</th>
              <th>{say("Limit")}</th>
              <th>{say("Name")}</th>
              <th>{say("Source")}</th>
              <th>{say("Year")}</th>
              <th>{say("Judges")}</th>
            </tr>
          </thead>
          <tbody>
            {rules.limits.map((x, i) => (
              <LimitRow
                key={x.id}
                x={x}
                a={names.find((n) => n.id === x.analyte)}
                may={may}
                set={(part) => set(i, part)}
              />
            ))}
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
          {say("Kept as version {version}.", { version: firm.rules.version })}
        </p>
      )}
      {may && (
        <button className="key go mt-3" disabled={save.isPending} onClick={() => save.mutate()}>
          {say("Keep these limits")}
        </button>
      )}
    </section>
  );
}

const ABOUT: [Limit["about"], string][] = spoken([
  ["health", "health"],
  ["infants", "infants"],
  ["taste", "taste"],
  ["stains", "stains"],
  ["equipment", "equipment and pipes"],
  ["diet", "diet"],
]);

type Own = Pick<Limit, "analyte" | "value" | "about" | "name" | "place" | "source" | "year">;

function ownLimit(of: Own): Limit {
  const id = `own.${of.analyte}.${Date.now().toString(36)}`;
  return { ...of, id, op: "at_most", year: Math.round(of.year), governs: true, note: "" };
}

function Typed({
  label,
  value,
  onType,
}: {
  label: string;
  value: string;
  onType: (v: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      <input className="input" value={value} onChange={(e) => onType(e.target.value)} />
    </label>
  );
}

/** A limit of the firm's own, with its source and year; it is kept with the others. */
function AddLimit({ names, onAdd }: { names: Named[]; onAdd: (x: Limit) => void }): ReactElement {
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
  return (
    <details className="mt-2">
      <summary className="min-h-11 flex items-center cursor-pointer font-semibold">
        {say("Add a limit")}
      </summary>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-3 items-end">
        <label className="field">
          <span>{say("What")}</span>
          <select className="input" value={analyte} onChange={(e) => setAnalyte(e.target.value)}>
            {names.map((a) => (
              <option key={a.id} value={a.id}>
                {a.name}
              </option>
            ))}
          </select>
        </label>
        <Typed label={say("At most [{unit}]", { unit })} value={value} onType={setValue} />
        <label className="field">
          <span>{say("About")}</span>
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
        <Typed label={say("Name")} value={name} onType={setName} />
        <Typed label={say("Country or body")} value={place} onType={setPlace} />
        <Typed label={say("Source")} value={source} onType={setSource} />
        <Typed label={say("Year")} value={year} onType={setYear} />
        <button
          type="button"
          className="key"
          disabled={!good}
          onClick={() => {
            onAdd(ownLimit({ analyte, value: n, about, name, place, source, year: Number(year) }));
            setValue("");
          }}
        >
          {say("Add it to the list")}
        </button>
      </div>
    </details>
  );
}
