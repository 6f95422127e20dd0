/** The laboratory: bottles to draw with their steps, the chain and its clock, and results typed or brought in from a file. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Upload } from "lucide-react";
import { useRef, useState, type ReactElement } from "react";

import {
  useInstruments,
  useLabKinds,
  usePutLabSample,
  useReference,
  useStrike,
} from "../../api/hooks";
import type { LabKind, LabPreview, LabSample } from "../../api/types";
import { upload } from "../../api/upload";
import { newId } from "../../app/names";
import { best } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { BottleTimes } from "./BottleTimes";
import { DrawSteps, type Skipped } from "./DrawSteps";
import { clock, exactNow, useNow } from "./timers";
import { useKeep } from "./useKeep";

const CHAIN = [
  ["handed_at", "Handed over"],
  ["received_at", "Received"],
  ["reported_at", "Reported"],
] as const;
const when = (iso: string): string =>
  new Date(iso).toLocaleString([], {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    hour12: false,
  });

function Bottle({ bottle, kind }: { bottle: LabSample; kind: LabKind | undefined }): ReactElement {
  const { id, view } = useVisitContext();
  const put = usePutLabSample(id);
  const s = view.lab[bottle.id];
  const next = CHAIN.find(([k]) => bottle[k] == null);
  const client = useQueryClient();
  const expected =
    view.reports[bottle.id] === undefined
      ? null
      : new Date(view.reports[bottle.id] ?? "").getTime();
  const now = useNow(expected !== null);
  const fetchReport = useMutation({
    mutationFn: async () => {
      const r = await fetch(`/api/visits/${id}/standins/laboratory/${bottle.id}`);
      if (!r.ok) throw new Error("no report");
      await upload<LabPreview>(
        `/api/visits/${id}/samples/${bottle.sample}/lab-results`,
        await r.blob(),
        "text/csv",
      );
      await put.mutateAsync({
        bottle: { ...bottle, reported_at: exactNow() },
        version: view.versions[bottle.id],
      });
    },
    onSettled: () => void client.invalidateQueries({ queryKey: ["visit", id] }),
  });
  return (
    <li className="border-b border-rule py-2">
      <div className="flex gap-3 items-center flex-wrap">
        <StateMark
          kind={s?.overdue ? "no" : bottle.reported_at ? "done" : "part"}
          size={20}
          label={s?.overdue ? "overdue" : "on its way"}
        />
        <span className="flex-1 min-w-[220px]">
          <b>{kind?.name ?? bottle.kind}</b>
          <span className="block text-s text-ink-2">
            drawn {when(bottle.drawn_at)}
            {CHAIN.filter(([k]) => bottle[k]).map(
              ([k, w]) => `, ${w.toLowerCase()} ${when(bottle[k] ?? "")}`,
            )}
            {bottle.laboratory && `, ${bottle.laboratory}`}
            {bottle.seal && `, seal ${bottle.seal}`}
          </span>
        </span>
        {expected !== null && now < expected && (
          <span className="text-m num" role="timer">
            report in {clock(expected - now)}
          </span>
        )}
        {expected !== null &&
          now >= expected &&
          !s?.overdue &&
          (kind?.analytes.length ?? 0) > 0 && (
            <button
              className="key"
              style={{ minHeight: 46 }}
              disabled={fetchReport.isPending}
              onClick={() => fetchReport.mutate()}
            >
              {fetchReport.isPending ? "Fetching" : "Fetch the report"}
              <span className="font-normal text-s text-ink-2">simulated</span>
            </button>
          )}
        {next && (
          <button
            className="key"
            style={{ minHeight: 46 }}
            disabled={put.isPending}
            onClick={() =>
              put.mutate({
                bottle: { ...bottle, [next[0]]: exactNow() },
                version: view.versions[bottle.id],
              })
            }
          >
            {next[1]} now
          </button>
        )}
      </div>
      {s && (
        <p className={`text-m ${s.overdue ? "text-zest-ink font-semibold" : "text-ink-2"}`}>
          {s.sentence}
        </p>
      )}
      <BottleTimes
        bottle={bottle}
        onPut={(b) => put.mutateAsync({ bottle: b, version: view.versions[bottle.id] })}
      />
      <Trouble error={put.error ?? fetchReport.error} />
    </li>
  );
}

/** What a metals report may mean by mg/L. */
const BASES: Record<string, string[]> = {
  calcium: ["Ca", "CaCO3"],
  magnesium: ["Mg", "CaCO3"],
  alkalinity: ["CaCO3", "HCO3"],
};

function TypedResult(): ReactElement {
  const kits = useInstruments().data ?? [];
  const names = useReference().data?.analytes ?? [];
  const [analyte, setAnalyte] = useState("nitrate_n");
  const [qualifier, setQualifier] = useState<"=" | "<" | "absent" | "present">("=");
  const [text, setText] = useState("");
  const [unit, setUnit] = useState("");
  const [basis, setBasis] = useState("");
  const [hours, setHours] = useState("");
  const [laboratory, setLaboratory] = useState("");
  const [report, setReport] = useState("");
  const [reported, setReported] = useState("");
  const [certified, setCertified] = useState("");
  const { busy, error, save } = useKeep();
  const kit = kits.find((k) => k.kind === "laboratory" && k.analyte === analyte);
  const a = names.find((n) => n.id === analyte);
  const bacteria = a?.unit === "per 100 mL";
  const bases =
    analyte === "nitrate_n"
      ? ["N", "NO3"]
      : analyte === "nitrite_n"
        ? ["N", "NO2"]
        : analyte === "radon"
          ? ["collection", "counting"]
          : (BASES[analyte] ?? []);
  const units =
    analyte === "radon"
      ? ["pCi/L", "Bq/L"]
      : bacteria
        ? ["per 100 mL"]
        : a?.unit === "mg/L as CaCO3"
          ? ["mg/L", "gpg", "°dH", "mmol/L"]
          : a?.unit === "mg/L"
            ? ["mg/L", "µg/L", "ppb", "ng/L"]
            : [a?.unit ?? ""];
  const words = qualifier === "absent" || qualifier === "present";
  const keepIt = (): void => {
    if (!kit) return;
    void save(kit, {
      method: "laboratory",
      qualifier,
      value: words ? null : text === "" ? null : Number(text.replace(",", ".")),
      unit: unit || (units[0] ?? ""),
      basis: basis || null,
      uncertainty: 0,
      certified: certified === "" ? null : certified === "yes",
      laboratory,
      report_number: report,
      report_date: reported || null,
      method_used: "",
      detection_limit: null,
      hours_to_count: hours ? Number(hours) : null,
      report: "laboratory",
    }).then((kept) => {
      if (kept) setText("");
    });
  };
  return (
    <form
      className="grid grid-cols-[repeat(auto-fill,minmax(158px,1fr))] gap-3 items-end"
      onSubmit={(e) => {
        e.preventDefault();
        keepIt();
      }}
    >
      <label className="field">
        <span>What</span>
        <select
          className="input"
          value={analyte}
          onChange={(e) => {
            setAnalyte(e.target.value);
            setUnit("");
            setBasis("");
            setQualifier("=");
          }}
        >
          {names
            .filter((n) => kits.some((k) => k.kind === "laboratory" && k.analyte === n.id))
            .map((n) => (
              <option key={n.id} value={n.id}>
                {n.name}
              </option>
            ))}
        </select>
      </label>
      <label className="field">
        <span>The report says</span>
        <select
          className="input"
          value={qualifier}
          onChange={(e) => setQualifier(e.target.value as typeof qualifier)}
        >
          <option value="=">a number</option>
          <option value="<">under</option>
          {bacteria && <option value="absent">absent</option>}
          {bacteria && <option value="present">present</option>}
        </select>
      </label>
      {!words && (
        <label className="field">
          <span>Number</span>
          <input
            className="input"
            inputMode="decimal"
            required
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
      )}
      {!words && (
        <label className="field">
          <span>Unit</span>
          <select
            className="input"
            value={unit || units[0]}
            onChange={(e) => setUnit(e.target.value)}
          >
            {units.map((u) => (
              <option key={u}>{u}</option>
            ))}
          </select>
        </label>
      )}
      {bases.length > 0 && (
        <label className="field">
          <span>{analyte === "radon" ? "As of" : "Basis"}</span>
          <select
            className="input"
            required
            value={basis}
            onChange={(e) => setBasis(e.target.value)}
          >
            <option value="">choose</option>
            {bases.map((b) => (
              <option key={b} value={b}>
                {analyte === "radon" ? b : `as ${b}`}
              </option>
            ))}
          </select>
        </label>
      )}
      {basis === "counting" && (
        <label className="field">
          <span>Hours to count</span>
          <input
            className="input"
            inputMode="decimal"
            required
            value={hours}
            onChange={(e) => setHours(e.target.value)}
          />
        </label>
      )}
      <label className="field">
        <span>Laboratory</span>
        <input
          className="input"
          required
          value={laboratory}
          onChange={(e) => setLaboratory(e.target.value)}
        />
      </label>
      <label className="field">
        <span>Certified for it</span>
        <select className="input" value={certified} onChange={(e) => setCertified(e.target.value)}>
          <option value="">not known</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </select>
      </label>
      <label className="field">
        <span>Report number</span>
        <input className="input" value={report} onChange={(e) => setReport(e.target.value)} />
      </label>
      <label className="field">
        <span>Date of report</span>
        <input
          className="input min-w-0 w-full"
          type="date"
          value={reported}
          onChange={(e) => setReported(e.target.value)}
        />
      </label>
      <button className="key" disabled={busy || !kit}>
        Keep it
      </button>
      <div className="col-span-full">
        <Trouble error={error} />
      </div>
    </form>
  );
}

function FromFile(): ReactElement {
  const { id, picked, units } = useVisitContext();
  const client = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const preview = useMutation({
    mutationFn: (f: File) => upload<LabPreview>("/api/laboratory/preview", f, "text/csv"),
    onMutate: (f) => setFile(f),
  });
  const bad = (preview.data?.rows ?? []).filter((r) => r.error);
  const [without, setWithout] = useState(false);
  const left = without ? bad.map((r) => r.row) : [];
  const bring = useMutation({
    mutationFn: (f: File) =>
      upload<LabPreview>(
        `/api/visits/${id}/samples/${picked?.id ?? ""}/lab-results?${left.map((n) => `without=${n}`).join("&")}`,
        f,
        "text/csv",
      ),
    onSuccess: () => {
      setFile(null);
      preview.reset();
      void client.invalidateQueries({ queryKey: ["visit", id] });
    },
  });
  const p = preview.data;
  return (
    <div className="grid gap-2 justify-items-start">
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        className="sr-only"
        tabIndex={-1}
        aria-label="Results file"
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) preview.mutate(f);
          e.target.value = "";
        }}
      />
      <button className="key" onClick={() => input.current?.click()}>
        <Upload size={20} aria-hidden="true" />
        Results from a CSV file
      </button>
      <Trouble error={preview.error ?? bring.error} />
      {p && file && (
        <div className="w-full border-[1.5px] border-ink bg-slip p-3">
          <p className="font-semibold mb-1">
            {p.good
              ? `${p.rows.length} results, all can be used`
              : `${p.rows.filter((r) => r.error).length} of ${p.rows.length} rows cannot be used: nothing is stored`}
          </p>
          <ul className="max-h-[180px] overflow-auto scroll text-m" tabIndex={-1}>
            {p.rows.map((r) => (
              <li key={r.row} className="flex gap-2 py-1 border-b border-rule">
                <StateMark kind={r.error ? "no" : "done"} size={16} />
                <span className="w-14 text-ink-2">row {r.row}</span>
                <b className="w-44">{r.name}</b>
                <span>
                  {r.error
                    ? `${r.error} ${r.remedy}`
                    : r.value
                      ? best(r.analyte, r.value, units)
                      : ""}
                </span>
              </li>
            ))}
          </ul>
          {bad.length > 0 && bad.length < p.rows.length && (
            <label className="flex gap-2 items-center min-h-11">
              <input
                type="checkbox"
                className="w-5 h-5"
                checked={without}
                onChange={(e) => setWithout(e.target.checked)}
              />
              Leave out {bad.length === 1 ? "the row" : `the ${bad.length} rows`} that cannot be
              used
            </label>
          )}
          <div className="flex gap-2 mt-2">
            <button
              className="key"
              style={{ background: "var(--ink)", color: "var(--paper)" }}
              disabled={(!p.good && left.length === 0) || bring.isPending}
              onClick={() => bring.mutate(file)}
            >
              Store {p.rows.length - left.length} for {picked?.name}
            </button>
            <button
              className="key bare"
              onClick={() => {
                setFile(null);
                preview.reset();
              }}
            >
              Leave it
            </button>
          </div>
        </div>
      )}
    </div>
  );
}

/** What was kept of reports on this glass, each with where it comes from, and a way back. */
function KeptResults(): ReactElement | null {
  const { id, picked, readingsOf, view, units } = useVisitContext();
  const names = useReference().data?.analytes ?? [];
  const strike = useStrike(id);
  const values = new Map(
    view.assessment.samples.flatMap((s) => s.readings.map((r) => [r.id, r.value] as const)),
  );
  const kept = (picked ? readingsOf(picked) : []).filter(
    (r) => r.observation.method === "laboratory",
  );
  if (kept.length === 0) return null;
  return (
    <section aria-labelledby="kept-results">
      <h2 id="kept-results">Kept for {picked?.name}</h2>
      <ul>
        {kept.map((r) => {
          const o = r.observation;
          const v = values.get(r.id);
          if (o.method !== "laboratory") return null;
          return (
            <li key={r.id} className="flex gap-3 items-center border-b border-rule min-h-12">
              <span className={`flex-1 ${r.struck_at ? "line-through text-ink-3" : ""}`}>
                <b>{names.find((n) => n.id === r.analyte)?.name ?? r.analyte}</b>{" "}
                {v ? best(r.analyte, v, units) : ""}
                {o.basis ? `, as ${o.basis}` : ""} · {o.laboratory || "laboratory not named"}
                {o.report_number ? `, report ${o.report_number}` : ""}
                {o.report_date ? ` of ${o.report_date}` : ""} ·{" "}
                {o.certified === true
                  ? "certified for it"
                  : o.certified === false
                    ? "not certified for it"
                    : "certified or not: not known"}
              </span>
              {!r.struck_at && (
                <button
                  className="key bare"
                  onClick={() => strike.mutate({ reading: r.id, because: "not right" })}
                >
                  Strike
                </button>
              )}
            </li>
          );
        })}
      </ul>
      <Trouble error={strike.error} />
    </section>
  );
}

export function LabStation(): ReactElement {
  const { id, picked, view } = useVisitContext();
  const kinds = useLabKinds().data ?? [];
  const put = usePutLabSample(id);
  const [drawing, setDrawing] = useState<LabKind | null>(null);
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const drawn = (laboratory: string, seal: string, skipped: Skipped[], at: string): void => {
    if (!drawing) return;
    const bottle: LabSample = {
      id: newId(),
      kind: drawing.id,
      sample: picked.id,
      laboratory,
      seal,
      drawn_at: at,
      handed_at: null,
      received_at: null,
      reported_at: null,
      by: view.visit.consultant,
      note: "",
      skipped,
      corrected: [],
    };
    put.mutate({ bottle }, { onSuccess: () => setDrawing(null) });
  };
  const suggested = view.suggested.map((s) => ({
    ...s,
    found: kinds.find((k) => k.id === s.kind),
  }));
  const others = kinds.filter((k) => !view.suggested.some((s) => s.kind === k.id));
  return (
    <section aria-labelledby="lab-title" className="grid gap-5 pb-6 min-w-0">
      <div>
        <h1 id="lab-title">For the laboratory</h1>
        <p className="text-ink-2">
          Health is judged by a certified laboratory and the local authority, never here. Bottles
          are drawn from “{picked.name}”.
        </p>
      </div>
      {view.visit.lab_samples.length > 0 && (
        <div>
          <h2 className="mb-1">On their way</h2>
          <ul>
            {view.visit.lab_samples.map((b) => (
              <Bottle key={b.id} bottle={b} kind={kinds.find((k) => k.id === b.kind)} />
            ))}
          </ul>
        </div>
      )}
      <div>
        <h2 className="mb-2">Bottles to draw</h2>
        {suggested.length === 0 && (
          <p className="text-m text-ink-2 mb-2">
            Nothing more is suggested for this source. Any kind may be drawn.
          </p>
        )}
        <ul className="mb-2">
          {suggested.map(
            (s) =>
              s.found && (
                <li
                  key={s.kind}
                  className="flex gap-3 items-center border-b border-rule min-h-[56px]"
                >
                  <span className="flex-1">
                    <b>{s.found.name}</b>
                    <span className="block text-s text-ink-2">{s.why}</span>
                  </span>
                  <button
                    className="key"
                    style={{ minHeight: 46 }}
                    onClick={() => setDrawing(s.found ?? null)}
                  >
                    Draw
                  </button>
                </li>
              ),
          )}
        </ul>
        <div className="flex flex-wrap gap-2">
          {others.map((k) => (
            <button
              key={k.id}
              className="key"
              style={{ minHeight: 44, padding: "0 12px", fontSize: 15 }}
              onClick={() => setDrawing(k)}
            >
              {k.name}
            </button>
          ))}
        </div>
      </div>
      <div>
        <h2 className="mb-2">A report has come</h2>
        <div className="grid gap-4">
          <TypedResult />
          <KeptResults />
          <FromFile />
        </div>
      </div>
      {drawing && (
        <DrawSteps
          kind={drawing}
          onDrawn={drawn}
          onClose={() => setDrawing(null)}
          error={put.error}
        />
      )}
    </section>
  );
}
