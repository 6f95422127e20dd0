/** Fields of one number of a laboratory's report. */
import type { ReactElement, ReactNode } from "react";

import type { Observation } from "../../api/types";
import { REPORTED } from "../../app/reported.generated";
import { say } from "../../app/language";

type Result = Extract<Observation, { method: "laboratory" }>;
type Qualifier = Result["qualifier"];

export interface Typed {
  analyte: string;
  qualifier: Qualifier;
  text: string;
  unit: string;
  basis: string;
  hours: string;
  laboratory: string;
  report: string;
  reported: string;
  certified: string;
}
export const EMPTY: Typed = {
  analyte: "nitrate_n",
  qualifier: "=",
  text: "",
  unit: "",
  basis: "",
  hours: "",
  laboratory: "",
  report: "",
  reported: "",
  certified: "",
};

const unitOfReport = (analyte: string): string => REPORTED[analyte]?.units[0] ?? "";
const inWords = (q: Qualifier): boolean => q === "absent" || q === "present";

/** What was typed, as it is kept. */
export function labResult(t: Typed): Result {
  const number = t.text === "" ? null : Number(t.text.replace(",", "."));
  return {
    method: "laboratory",
    qualifier: t.qualifier,
    value: inWords(t.qualifier) ? null : number,
    unit: t.unit || unitOfReport(t.analyte),
    basis: t.basis || null,
    uncertainty: 0,
    certified: t.certified === "" ? null : t.certified === "yes",
    laboratory: t.laboratory,
    report_number: t.report,
    report_date: t.reported || null,
    method_used: "",
    detection_limit: null,
    hours_to_count: t.hours ? Number(t.hours) : null,
    report: "laboratory",
  };
}

function Labelled({ label, children }: { label: string; children: ReactNode }): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      {children}
    </label>
  );
}

interface PartProps {
  t: Typed;
  put: (part: Partial<Typed>) => void;
}

function Text({
  t,
  put,
  name,
  label,
  required = false,
  decimal = false,
}: PartProps & {
  name: "text" | "hours" | "laboratory" | "report";
  label: string;
  required?: boolean;
  decimal?: boolean;
}): ReactElement {
  return (
    <Labelled label={label}>
      <input
        className="input"
        inputMode={decimal ? "decimal" : undefined}
        required={required}
        value={t[name]}
        onChange={(e) => put({ [name]: e.target.value })}
      />
    </Labelled>
  );
}

function Says({ t, put }: PartProps): ReactElement {
  const bacteria = unitOfReport(t.analyte) === "per 100 mL";
  return (
    <Labelled label={say("The report says")}>
      <select
        className="input"
        value={t.qualifier}
        onChange={(e) => put({ qualifier: e.target.value as Qualifier })}
      >
        <option value="=">{say("a number")}</option>
        <option value="<">{say("under")}</option>
        {bacteria && <option value="absent">{say("absent")}</option>}
        {bacteria && <option value="present">{say("present")}</option>}
      </select>
    </Labelled>
  );
}

function Amount({ t, put }: PartProps): ReactElement | null {
  if (inWords(t.qualifier)) return null;
  return (
    <>
      <Text t={t} put={put} name="text" label={say("Number")} required decimal />
      <Labelled label={say("Unit")}>
        <select
          className="input"
          value={t.unit || unitOfReport(t.analyte)}
          onChange={(e) => put({ unit: e.target.value })}
        >
          {REPORTED[t.analyte]?.units.map((u) => (
            <option key={u}>{u}</option>
          ))}
        </select>
      </Labelled>
    </>
  );
}

function Basis({ t, put }: PartProps): ReactElement | null {
  const bases = REPORTED[t.analyte]?.bases ?? [];
  const radon = t.analyte === "radon";
  const form = t.analyte === "arsenic"; // told apart by some laboratories only
  const asked = form ? say("Form") : say("Basis");
  if (bases.length === 0) return null;
  return (
    <>
      <Labelled label={radon ? say("As of") : asked}>
        <select
          className="input"
          required={!form}
          value={t.basis}
          onChange={(e) => put({ basis: e.target.value })}
        >
          <option value="">{form ? say("not told apart") : say("choose")}</option>
          {bases.map((b) => (
            <option key={b} value={b}>
              {radon ? b : say("as {b}", { b })}
            </option>
          ))}
        </select>
      </Labelled>
      {t.basis === "counting" && (
        <Text t={t} put={put} name="hours" label={say("Hours to count")} required decimal />
      )}
    </>
  );
}

/** Whose report it is; it stays for the next number of the same report. */
function Whose({ t, put }: PartProps): ReactElement {
  return (
    <>
      <Text t={t} put={put} name="laboratory" label={say("Laboratory")} required />
      <Labelled label={say("Certified for it")}>
        <select
          className="input"
          value={t.certified}
          onChange={(e) => put({ certified: e.target.value })}
        >
          <option value="">{say("not known")}</option>
          <option value="yes">{say("yes")}</option>
          <option value="no">{say("no")}</option>
        </select>
      </Labelled>
      <Text t={t} put={put} name="report" label={say("Report number")} />
      <Labelled label={say("Date of report")}>
        <input
          className="input min-w-0 w-full"
          type="date"
          value={t.reported}
          onChange={(e) => put({ reported: e.target.value })}
        />
      </Labelled>
    </>
  );
}

/** All that a report says of one thing, and whose it is. */
export function LabFields({ t, put }: PartProps): ReactElement {
  return (
    <>
      <Says t={t} put={put} />
      <Amount t={t} put={put} />
      <Basis t={t} put={put} />
      <Whose t={t} put={put} />
    </>
  );
}
