/** Parts that every view facing the customer is made of: large, calm, few. */
import type { ReactElement, ReactNode } from "react";

import type { DemoShown, Sample, VisitView } from "../../api/types";
import { useDemonstrations } from "../../api/hooks";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

/** A view that faces the customer: what is shown, and beside it what it shows and does not. */
export function FacingView({
  title,
  children,
  side,
}: {
  title: string;
  children: ReactNode;
  side: ReactNode;
}): ReactElement {
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_380px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-5 content-start min-w-0">
        <h1 className="text-[46px] leading-none">{title}</h1>
        {children}
      </div>
      <div className="grid gap-6 content-start">{side}</div>
    </div>
  );
}

export function NoGlass(): ReactElement {
  return <h1 className="text-[44px]">{say("No glass drawn yet")}</h1>;
}

/** Lines of this visit that lead water anywhere. */
export function useLines(): VisitView["assessment"]["options"] {
  const { options } = useVisitContext().view.assessment;
  return options.filter((o) => o.line && o.line.stages.length > 0);
}

/** Choose one of the lines, or none. */
export function PickLine({
  label,
  value,
  onPick,
}: {
  label: string;
  value: string | null | undefined;
  onPick: (option: string) => void;
}): ReactElement | null {
  const lines = useLines();
  if (lines.length === 0) return null;
  return (
    <div>
      <p className="text-[20px] mb-1">{label}</p>
      <div className="flex flex-wrap gap-2" role="group" aria-label={label}>
        {lines.map((o) => (
          <Big key={o.id} on={value === o.id} onClick={() => onPick(o.id)}>
            {o.name}
          </Big>
        ))}
      </div>
    </div>
  );
}

/** What a demonstration shows and does not show, always in sight. */
export function TwoSentences({
  kind,
  more,
}: {
  kind: string;
  more?: string | undefined;
}): ReactElement | null {
  const about = useDemonstrations().data?.offered.find((a) => a.id === kind);
  if (!about) return null;
  return (
    <div className="grid gap-3">
      <div>
        <h2>{say("What this shows")}</h2>
        <p className="text-[21px] leading-[1.35]">{about.shows}</p>
      </div>
      <div className="border-t-[1.5px] border-ink pt-3">
        <h2>{say("What it does not show")}</h2>
        <p className="text-[21px] leading-[1.35]">
          {about.does_not_show}
          {more !== undefined && ` ${more}`}
        </p>
      </div>
    </div>
  );
}

export function Cautions({ kind }: { kind: string }): ReactElement | null {
  const about = useDemonstrations().data?.offered.find((a) => a.id === kind);
  if (!about?.cautions.length) return null;
  return (
    <ul className="grid gap-1">
      {about.cautions.map((c) => (
        <li key={c} className="flex gap-3 items-start text-[20px]">
          <span className="pt-[3px]">
            <StateMark kind="no" size={20} label={say("mind")} />
          </span>
          {c}
        </li>
      ))}
    </ul>
  );
}

/** What came out, in sentences; why it may not be shown. */
export function Outcome({
  shown,
  error,
}: {
  shown: DemoShown | null;
  error?: unknown;
}): ReactElement {
  return (
    <div className="grid gap-2" aria-live="polite">
      {shown?.refused && (
        <p className="flex gap-3 text-[22px] font-semibold">
          <StateMark kind="no" size={26} />
          {shown.refused}
        </p>
      )}
      {shown?.sentences.map((s) => (
        <p key={s} className="text-[21px] leading-[1.3] font-d font-semibold">
          {s}
        </p>
      ))}
      {shown?.flags.map((f) => (
        <p key={f.id} className="flex gap-3 text-[20px]">
          <StateMark kind="no" size={22} />
          {f.sentence}
        </p>
      ))}
      <Trouble error={error ?? null} />
    </div>
  );
}

export function Big({
  on,
  onClick,
  children,
  disabled = false,
}: {
  on?: boolean;
  onClick: () => void;
  children: ReactNode;
  disabled?: boolean;
}): ReactElement {
  return (
    <button
      type="button"
      className={`key ${on ? "on" : ""}`}
      disabled={disabled}
      aria-pressed={on}
      style={{ minHeight: 56, fontSize: 20 }}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

/** Choose one of the glasses. */
export function PickGlass({
  label,
  value,
  onPick,
  only,
}: {
  label: string;
  value: string | null | undefined;
  onPick: (sample: string) => void;
  only?: (s: Sample) => boolean;
}): ReactElement {
  const { view } = useVisitContext();
  const list = view.visit.samples.filter((s) => only?.(s) ?? true);
  return (
    <div>
      <p className="text-[20px] font-semibold mb-1">{label}</p>
      <div className="flex flex-wrap gap-2" role="group" aria-label={label}>
        {list.map((s) => (
          <Big key={s.id} on={s.id === value} onClick={() => onPick(s.id)}>
            {s.name}
          </Big>
        ))}
      </div>
    </div>
  );
}

export function Simulated({ words }: { words: string }): ReactElement {
  return (
    <p
      className={
        "inline-flex items-center gap-2 border-[2px] border-dashed border-ink px-4 py-2 " +
        "text-[20px] font-semibold justify-self-start"
      }
    >
      {say("Simulated: {words}", { words })}
    </p>
  );
}
