/** A stage's verdict first, then the figures that matter; the rest folds open. */
import type { ReactElement } from "react";
import { lowerFirst } from "../../app/names";

import type { Check, Figure, StageReport } from "../../api/types";
import { ASKED } from "../../app/facts.generated";
import { StateMark, STATUS_MARK, type Mark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { AskOfPlace } from "./AskOfPlace";
import { say } from "../../app/language";

export const RANK: Record<string, number> = { stop: 0, unknown: 1, warn: 2, say: 3, met: 4 };
const FIRST_FIGURES = 2;
/** What is not known, and what is only said, may be answered where it stands. */
const ASKING = new Set(["unknown", "say"]);

/** Whether a test is named: what is asked here and now, or said already, needs none. */
const wantsTest = (c: Check): boolean =>
  c.status === "unknown" && c.test !== "" && !(c.id in ASKED) && !c.sentence.includes(c.test);

export function CheckList({ checks }: { checks: Check[] }): ReactElement {
  const sorted = [...checks].sort((a, b) => (RANK[a.status] ?? 5) - (RANK[b.status] ?? 5));
  return (
    <ul className="text-m leading-snug">
      {sorted.map((c, i) => (
        <li
          key={`${c.id}${i}`}
          className="flex gap-2 mb-[7px] items-start"
          data-check={c.id}
          data-status={c.status}
        >
          <span className="pt-[1px]">
            <StateMark
              kind={STATUS_MARK[c.status] ?? "say"}
              size={17}
              label={c.status === "stop" ? "stop" : undefined}
            />
          </span>
          <span className={c.status === "stop" ? "font-semibold" : ""}>
            {c.status === "stop" && <b className="text-zest-ink">{say("Stop.")} </b>}
            {c.sentence}
            {wantsTest(c) && (
              <span className="text-ink-2">{say(" Test: {test}.", { test: c.test })}</span>
            )}
            {ASKING.has(c.status) && <AskOfPlace check={c.id} />}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The gravest of some checks. */
export function worst(checks: Check[]): string {
  return checks.reduce((w, c) => ((RANK[c.status] ?? 5) < (RANK[w] ?? 5) ? c.status : w), "met");
}

/** What a stage comes to, in a few words. */
export function verdict(checks: Check[]): [words: string, mark: Mark] {
  const count = (status: string): number => checks.filter((c) => c.status === status).length;
  const [stops, open, warns] = [count("stop"), count("unknown"), count("warn")];
  if (stops > 0) return [say("Cannot work here"), "no"];
  const parts = [
    ...(warns > 0 ? [say("{warns} to watch", { warns })] : []),
    ...(open > 0 ? [say("{open} not known", { open })] : []),
  ];
  if (parts.length === 0) return [say("Works here"), "done"];
  return [parts.join(", "), open > 0 ? "unk" : "say"];
}

function FigureList({ figures }: { figures: Figure[] }): ReactElement {
  return (
    <ul className="text-m mb-2">
      {figures.map((f) => (
        <li key={f.id} className="mb-[9px] leading-snug" data-figure={f.id}>
          {f.label}{" "}
          <OpensWorking working={f.working}>
            {f.value} {f.unit}
          </OpensWorking>
          {f.worst !== "" && <span className="block text-s text-ink-3">{f.worst}</span>}
        </li>
      ))}
    </ul>
  );
}

export function StageCard({ stage }: { stage: StageReport }): ReactElement {
  const [words, mark] = verdict(stage.checks);
  const grave = stage.checks.filter((c) => (RANK[c.status] ?? 5) < 3);
  const calm = stage.checks.filter((c) => (RANK[c.status] ?? 5) >= 3);
  const more = stage.figures.slice(FIRST_FIGURES);
  return (
    <>
      <p className="flex gap-2 items-center font-semibold mb-2">
        <StateMark kind={mark} size={18} />
        {words}
      </p>
      <FigureList figures={stage.figures.slice(0, FIRST_FIGURES)} />
      <CheckList checks={grave} />
      {more.length + calm.length + stage.settings.length > 0 && (
        <details>
          <summary className="min-h-11 flex items-center cursor-pointer underline text-m">
            {more.length > 0 ? say("More figures and checks") : say("What was checked")}
          </summary>
          <FigureList figures={more} />
          <CheckList checks={calm} />
          {stage.settings.length > 0 && (
            <p className="text-s text-ink-2 mt-1">
              {say("Set: {x}.", {
                x: stage.settings.map(([k, w]) => `${lowerFirst(k)} ${w}`).join("; "),
              })}
            </p>
          )}
        </details>
      )}
    </>
  );
}
