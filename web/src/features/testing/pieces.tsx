/** What every station is made of: its steps, its range, its remarks and its way back. */
import { type ReactElement, type ReactNode } from "react";

import type { Instrument, Reading, Sample } from "../../api/types";
import { PROCEDURES, type Procedure } from "../../app/facts.generated";
import { best, between } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { StrikeKey } from "../../ui/StrikeKey";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import type { Report } from "./useKept";
import { Pictures } from "../pictures/Pictures";
import { useStrikeIt } from "./useStrikeIt";
import { spoken, say } from "../../app/language";

/** How this kit is used: its own procedure, else that of its kind. */
export function procedureOf(kit: Instrument): Procedure {
  const of = (analyte: string): Procedure | undefined =>
    PROCEDURES.find((p) => p.kind === kit.kind && p.analyte === analyte);
  const steps = [say("Read as its manual says")];
  const unknown = { kind: kit.kind, analyte: "", title: "", steps, caution: "", reagent: false };
  return of(kit.analyte) ?? of("") ?? unknown;
}

/**
 * Two columns: what is done at the left, where it is done at the right; one above the other on a
 * phone.
 */
export function StationFrame({
  titled,
  side,
  children,
}: {
  titled: string;
  side: ReactNode;
  children: ReactNode;
}): ReactElement {
  return (
    <section
      aria-labelledby={titled}
      className="grid grid-cols-[200px_minmax(0,1fr)] max-[699px]:grid-cols-1 gap-x-6 gap-y-3"
    >
      <div>{side}</div>
      <div className="min-w-0">{children}</div>
    </section>
  );
}

export function Doing({
  steps,
  done,
  caution = "",
}: {
  steps: readonly string[];
  done: boolean;
  caution?: string;
}): ReactElement {
  return (
    <ul>
      {steps.map((s) => (
        <li key={s} className="flex gap-2 text-m leading-tight mb-[6px]">
          <StateMark kind={done ? "done" : "miss"} size={16} />
          <span>{s}</span>
        </li>
      ))}
      {caution !== "" && <li className="text-s text-ink-2 mt-2">{caution}</li>}
    </ul>
  );
}

export function Flags({
  flags,
}: {
  flags: readonly { id: string; sentence: string }[];
}): ReactElement {
  return (
    <>
      {flags.map((f) => (
        <p key={f.id} className="flex gap-2 text-m mt-1">
          <StateMark kind="no" size={16} />
          <span>{f.sentence}</span>
        </p>
      ))}
    </>
  );
}

/** The best value, and the range that the true one lies in, with its working. */
export function Measured({
  report,
  size = 72,
  units,
  also,
}: {
  report: Report;
  size?: number;
  units: string;
  also?: string;
}): ReactElement {
  const { analyte, value, working } = report;
  return (
    <div className="flex items-end gap-5 flex-wrap">
      <span className="num leading-[0.84]" style={{ fontSize: size }}>
        {best(analyte, value, units)}
      </span>
      {also !== undefined && <span className="text-b text-ink-2">{also}</span>}
      {value.range && (
        <span className="text-b leading-tight">
          <span className="text-ink-2">{say("true value lies between")}</span>
          <br />
          <OpensWorking working={working}>{between(analyte, value.range, units)}</OpensWorking>
        </span>
      )}
    </div>
  );
}

/** What every station of the bench is given; ``next``: the key to the next test. */
export interface StationProps {
  kit: Instrument;
  sample: Sample;
  next: ReactNode;
}

/** What is shown while the server has not answered yet. */
export function OnThisDevice(): ReactElement {
  return (
    <p className="text-ink-2 text-m">
      {say("Kept on this device. The range follows when the server answers.")}
    </p>
  );
}

export function Dilution({
  value,
  onChange,
}: {
  value: number;
  onChange: (d: number) => void;
}): ReactElement {
  return (
    <label className="flex items-center gap-2 text-m">
      {say("Diluted to")}
      <select
        className="input"
        style={{ width: 150, minHeight: 44 }}
        value={value}
        onChange={(e) => onChange(Number(e.target.value))}
      >
        {[1, 2, 3, 4, 5, 10].map((d) => (
          <option key={d} value={d}>
            {d === 1 ? say("not diluted") : say("1 in {d}", { d })}
          </option>
        ))}
      </select>
    </label>
  );
}

const REASONS = spoken([
  "Typed wrong",
  "Read too soon or too late",
  "Another water",
  "The kit was at fault",
]);

/** What can be done with a reading that is kept: photographed, and struck. */
export function OnRecord({ reading, words }: { reading: Reading; words?: string }): ReactElement {
  const { id } = useVisitContext();
  return (
    <>
      <Pictures visit={id} about="reading" of={reading.id} />
      <StrikeIt reading={reading} words={words} />
    </>
  );
}

/** Strikes a reading with its reason; it stays on record, and can be taken back for ten seconds. */
function StrikeIt({
  reading,
  words = say("Strike it"),
}: {
  reading: Reading;
  words?: string;
}): ReactElement {
  const { picked } = useVisitContext();
  const { strike, pending, error } = useStrikeIt(picked?.id ?? "");
  return (
    <>
      <StrikeKey
        words={words}
        reasons={REASONS}
        busy={pending}
        onStrike={(because) => strike(reading, because)}
      />
      <Trouble error={error} />
    </>
  );
}
