/** One cell: what an option does to what was found, on what evidence, and how it comes about. */
import type { ReactElement } from "react";

import type { Cell, ComparedOption, Row } from "../../api/types";
import { Opens } from "../../ui/Slip";
import { EvidenceMark, MeetsMark, RangeBar } from "./pictures";
import { say } from "../../app/language";

type Steps = ComparedOption["steps"][string];

function StepsSlip({ steps, where }: { steps: Steps; where: string }): ReactElement {
  return (
    <>
      <ol className="grid gap-2 text-m">
        {steps.map((s, i) => (
          <li key={i} className="border-b border-rule pb-1">
            <span className="block text-ink-2">
              {i === 0 ? s.stage : say("behind {stage}", { stage: s.stage })}
            </span>
            <b>{s.shown}</b>
            {s.evidence !== "" && <span className="text-s text-ink-2"> {s.evidence}</span>}
          </li>
        ))}
      </ol>
      <p className="text-s text-ink-2 mt-2">
        {say("Ranges go through every stage, end by end. It is judged {x}.", {
          x: where === "tap" ? "at the drinking tap" : "at the house’s taps",
        })}
      </p>
    </>
  );
}

function textOf(cell: Cell): string {
  if (cell.change === "not_tested") return say("not tested");
  return cell.change === "stays" ? say("stays {shown}", { shown: cell.shown }) : cell.shown;
}

function Evidence({ cell }: { cell: Cell }): ReactElement | null {
  const words = cell.change === "no_claim" ? say("no claim") : cell.evidence;
  return (
    <>
      {cell.change !== "today" && words !== "" && (
        <span className="flex items-center gap-1 text-s text-ink-2">
          <EvidenceMark level={cell.level} />
          {words}
          {!cell.established && <b className="text-zest-ink">{say("not proven")}</b>}
        </span>
      )}
      {cell.note !== "" && cell.note !== words && cell.change !== "no_claim" && (
        <span className="block text-s text-ink-2 leading-tight">{cell.note}</span>
      )}
    </>
  );
}

export function CellView({
  row,
  cell,
  today,
  o,
}: {
  row: Row;
  cell: Cell;
  today: Cell | undefined;
  o: ComparedOption;
}): ReactElement {
  const steps: Steps | undefined = o.steps[row.analyte];
  const stays = cell.change === "stays" || cell.change === "no_claim";
  return (
    <div className="min-w-0">
      <div className="flex items-center gap-[6px] min-h-6">
        <MeetsMark cell={cell} />
        {steps ? (
          <Opens
            title={`${row.name}: ${o.name}`}
            className="text-b leading-tight"
            slip={<StepsSlip steps={steps} where={cell.where} />}
          >
            {textOf(cell)}
          </Opens>
        ) : (
          <span className={`text-b leading-tight ${stays ? "text-ink-2" : "font-[640]"}`}>
            {textOf(cell)}
          </span>
        )}
      </div>
      <RangeBar row={row} cell={cell} today={today} />
      <Evidence cell={cell} />
    </div>
  );
}
