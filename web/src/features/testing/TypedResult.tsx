/** A laboratory's result, typed from its report. */
import { useState, type ReactElement } from "react";

import { useInstruments, useReference } from "../../api/hooks";
import { Trouble } from "../../ui/Trouble";
import { useKeep } from "./useKeep";

/** What a metals report may mean by mg/L. */
const BASES: Record<string, string[]> = {
  calcium: ["Ca", "CaCO3"],
  magnesium: ["Mg", "CaCO3"],
  alkalinity: ["CaCO3", "HCO3"],
};

export function TypedResult(): ReactElement {
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
