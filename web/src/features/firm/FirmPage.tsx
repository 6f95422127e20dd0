/** Kits, catalogue, prices and limits of the firm: data with its source and year. A manager changes them; old visits keep those of their day. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useFirm, useInstruments, useMe, useReference, type FirmView } from "../../api/hooks";
import type { Instrument, Rules } from "../../api/types";
import { Head } from "../../app/Shell";
import { StateMark } from "../../ui/marks";
import { NumberField, Seg, TextField } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Catalogue } from "./Catalogue";
import { Figures } from "./Figures";
import { Sessions } from "./Sessions";

const NEW_KIT: Instrument = {
  id: "",
  name: "",
  kind: "strip",
  analyte: "hardness",
  unit: "",
  accuracy_share: null,
  accuracy_of: null,
  accuracy_plus: 0,
  full_scale: null,
  resolution: 1,
  factor: null,
  drop_value: null,
  sample_ml: null,
  steps: [],
  detection_limit: null,
  reagent_expiry: null,
  last_check: null,
  check_every_days: null,
  wait_s: null,
  change_of_colour: "",
  simulated: false,
  note: "",
};
const KINDS = [
  ["meter", "meter, repeats"],
  ["drops", "drops"],
  ["strip", "strip"],
  ["comparator", "comparator"],
  ["display", "one display"],
  ["bucket", "bucket"],
] as const;

function KitForm({
  kit,
  version,
  fresh,
  onDone,
}: {
  kit: Instrument;
  version: number | undefined;
  fresh: boolean;
  onDone: () => void;
}): ReactElement {
  const [k, setK] = useState(kit);
  const client = useQueryClient();
  const names = useReference().data?.analytes ?? [];
  const set = (part: Partial<Instrument>): void => setK({ ...k, ...part });
  const save = useMutation({
    mutationFn: () => {
      const id = fresh
        ? k.name
            .toLowerCase()
            .replace(/[^a-z0-9]+/g, "-")
            .slice(0, 40) || "kit"
        : k.id;
      return data(
        api.PUT("/api/instruments/{key}", {
          params: {
            path: { key: id },
            header: version === undefined ? {} : { "If-Match-Version": version },
          },
          body: { ...k, id },
        }),
      );
    },
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["instruments"] });
      void client.invalidateQueries({ queryKey: ["firm"] });
      onDone();
    },
  });
  return (
    <form
      className="border-[1.5px] border-ink bg-slip p-4 grid gap-3 my-2"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-3 items-start">
        <TextField label="Name" value={k.name} required onCommit={(name) => set({ name })} />
        <label className="field">
          <span>Read as</span>
          <select
            className="input"
            value={k.kind}
            onChange={(e) => set({ kind: e.target.value as Instrument["kind"] })}
          >
            {KINDS.map(([v, n]) => (
              <option key={v} value={v}>
                {n}
              </option>
            ))}
          </select>
        </label>
        <label className="field">
          <span>Reads</span>
          <select
            className="input"
            value={k.analyte}
            onChange={(e) => set({ analyte: e.target.value })}
          >
            {names.map((n) => (
              <option key={n.id} value={n.id}>
                {n.name}
              </option>
            ))}
          </select>
        </label>
        <TextField
          label="Unit of its steps"
          value={k.unit}
          hint="empty: the analyte’s own"
          onCommit={(unit) => set({ unit })}
        />
        {(k.kind === "strip" || k.kind === "comparator") && (
          <TextField
            label="Pads, in order"
            value={k.steps.join(" ")}
            hint="0 25 50 120 180 250 425"
            onCommit={(t) =>
              set({
                steps: t
                  .split(/[\s,;]+/)
                  .filter(Boolean)
                  .map(Number),
              })
            }
          />
        )}
        {k.kind === "drops" && (
          <NumberField
            label="One drop stands for"
            value={k.drop_value ?? null}
            onCommit={(drop_value) => set({ drop_value })}
          />
        )}
        {k.kind === "meter" && (
          <NumberField
            label="Factor"
            value={k.factor ?? null}
            onCommit={(factor) => set({ factor })}
          />
        )}
        {(k.kind === "meter" || k.kind === "display") && (
          <NumberField
            label="Accuracy, share"
            unit="%"
            value={k.accuracy_share == null ? null : k.accuracy_share * 100}
            onCommit={(n) => set({ accuracy_share: n === null ? null : n / 100 })}
          />
        )}
        {(k.kind === "meter" || k.kind === "display") && (
          <Seg
            label="Share of"
            value={k.accuracy_of ?? ""}
            choices={[
              { value: "reading", name: "reading" },
              { value: "full_scale", name: "full scale" },
            ]}
            onChange={(accuracy_of) => set({ accuracy_of })}
          />
        )}
        {k.kind === "meter" && (
          <NumberField
            label="Full scale"
            value={k.full_scale ?? null}
            onCommit={(full_scale) => set({ full_scale })}
          />
        )}
        {k.kind === "display" && (
          <NumberField
            label="Accuracy, plus or minus"
            value={k.accuracy_plus}
            onCommit={(n) => set({ accuracy_plus: n ?? 0 })}
          />
        )}
        {(k.kind === "meter" || k.kind === "display") && (
          <NumberField
            label="Smallest step"
            value={k.resolution}
            onCommit={(n) => set({ resolution: n ?? 1 })}
          />
        )}
        {k.kind === "display" && (
          <NumberField
            label="Cannot read under"
            value={k.detection_limit ?? null}
            onCommit={(detection_limit) => set({ detection_limit })}
          />
        )}
        <label className="field">
          <span>Reagent expires</span>
          <input
            className="input"
            type="date"
            value={k.reagent_expiry ?? ""}
            onChange={(e) => set({ reagent_expiry: e.target.value || null })}
          />
        </label>
        <label className="field">
          <span>Last check</span>
          <input
            className="input"
            type="date"
            value={k.last_check ?? ""}
            onChange={(e) => set({ last_check: e.target.value || null })}
          />
        </label>
        <NumberField
          label="Check every"
          unit="days"
          value={k.check_every_days ?? null}
          onCommit={(n) => set({ check_every_days: n === null ? null : Math.round(n) })}
        />
        <NumberField
          label="Wait before reading"
          unit="s"
          value={k.wait_s ?? null}
          onCommit={(n) => set({ wait_s: n === null ? null : Math.round(n) })}
        />
      </div>
      <Trouble error={save.error} />
      <div className="flex gap-2">
        <button
          className="key"
          style={{ background: "var(--ink)", color: "var(--paper)" }}
          disabled={save.isPending || !k.name.trim()}
        >
          Keep this kit
        </button>
        <button type="button" className="key bare" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}

function Kits({ firm, may }: { firm: FirmView; may: boolean }): ReactElement {
  const kits = (useInstruments().data ?? []).filter((k) => k.kind !== "laboratory");
  const [open, setOpen] = useState<string | null>(null);
  const today = new Date().toISOString().slice(0, 10);
  return (
    <section id="kits">
      <div className="flex justify-between items-center">
        <h2>Kits and meters</h2>
        {may && (
          <button className="key" onClick={() => setOpen("new")}>
            Add a kit
          </button>
        )}
      </div>
      {open === "new" && (
        <KitForm kit={NEW_KIT} version={undefined} fresh onDone={() => setOpen(null)} />
      )}
      <ul>
        {kits.map((k) => {
          const expired = k.reagent_expiry != null && k.reagent_expiry < today;
          const overdue =
            k.check_every_days != null &&
            (k.last_check == null ||
              Date.parse(k.last_check) + 86_400_000 * k.check_every_days < Date.parse(today));
          const state = expired ? "reagent expired" : overdue ? "check overdue" : "fit";
          return (
            <li key={k.id} className="border-b border-rule py-1">
              <div className="flex gap-3 items-center min-h-12">
                <StateMark kind={state === "fit" ? "done" : "no"} size={17} label={state} />
                <span className="flex-1">
                  <b>{k.name}</b>
                  <span className="text-ink-2 text-m">
                    {" "}
                    {k.kind}
                    {k.steps.length ? `, pads ${k.steps.join(" ")}` : ""}
                    {k.drop_value != null ? `, ${k.drop_value} ${k.unit} a drop` : ""}
                    {k.factor != null ? `, factor ${k.factor}` : ""}
                    {k.reagent_expiry != null ? `, expires ${k.reagent_expiry}` : ""}
                    {k.last_check != null ? `, checked ${k.last_check}` : ""}
                    {k.simulated ? ", simulated" : ""}
                  </span>
                  {state !== "fit" && <b className="text-m text-zest-ink"> {state}</b>}
                </span>
                {may && (
                  <button
                    className="key"
                    style={{ minHeight: 44 }}
                    onClick={() => setOpen(open === k.id ? null : k.id)}
                  >
                    Change
                  </button>
                )}
              </div>
              {open === k.id && (
                <KitForm
                  kit={k}
                  version={firm.kits[k.id]}
                  fresh={false}
                  onDone={() => setOpen(null)}
                />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Limits({ firm, may }: { firm: FirmView; may: boolean }): ReactElement {
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

/** Scroll the page's own scroller, and nothing around it, to a section; the next Tab goes on from there. */
function jump(to: string): void {
  const section = document.getElementById(to);
  const scroller = section?.closest(".scroll");
  if (!section || !scroller) return;
  scroller.scrollBy({
    top: section.getBoundingClientRect().top - scroller.getBoundingClientRect().top - 8,
  });
  section.tabIndex = -1;
  section.focus({ preventScroll: true });
}

export function FirmPage(): ReactElement {
  const firm = useFirm();
  const me = useMe();
  const may = me.data?.role === "manager";
  return (
    <div className="screen plain">
      <Head title="Kits, catalogue, limits" sub={firm.data?.name} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10"
          tabIndex={0}
          role="group"
          aria-label="Kits, catalogue and limits"
        >
          <div className="max-w-[1080px] mx-auto grid grid-cols-1 [&>*]:min-w-0 gap-8 pt-4">
            <h1>Kits, catalogue and limits</h1>
            <nav className="flex gap-3 flex-wrap" aria-label="On this page">
              {[
                ["kits", "Kits and meters"],
                ["catalogue", "Catalogue"],
                ["figures", "Prices and settings"],
                ["limits", "Limits"],
              ].map(([to, name]) => (
                <a
                  key={to}
                  className="key"
                  href={`#${to}`}
                  onClick={(e) => {
                    e.preventDefault();
                    jump(to!);
                  }}
                >
                  {name}
                </a>
              ))}
            </nav>
            {!may && <p className="text-ink-2">A manager of the firm may change these.</p>}
            {firm.isPending && <Waiting what="Fetching them." />}
            <Trouble error={firm.error} />
            {firm.data && <Kits firm={firm.data} may={may} />}
            {firm.data && <Catalogue may={may} currency={firm.data.settings.currency} />}
            {firm.data && (
              <Figures key={`figures-${firm.data.version}`} firm={firm.data} may={may} />
            )}
            {firm.data && <Limits key={firm.data.version} firm={firm.data} may={may} />}
            <Sessions />
          </div>
        </div>
      </main>
    </div>
  );
}
