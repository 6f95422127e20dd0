/** Today and the lines that are considered, each with how it stands. */
import { Plus } from "lucide-react";
import type { ReactElement, ReactNode } from "react";

import type { Option, VisitView } from "../../api/types";
import { StateMark, STATUS_MARK } from "../../ui/marks";
import { worst } from "./Checks";
import { say } from "../../app/language";

export const TODAY = "today";
export const LETTER = (i: number): string => String.fromCharCode(65 + i);
export const MOST_LINES = 6;

function statusOf(view: VisitView, id: string): string {
  const line = view.assessment.options.find((x) => x.id === id)?.line;
  return line ? worst([...line.stages.flatMap((s) => s.checks), ...line.checks]) : "stop";
}

function Tab({
  chosen,
  onChoose,
  children,
}: {
  chosen: boolean;
  onChoose: () => void;
  children: ReactNode;
}): ReactElement {
  return (
    <button
      className="key"
      style={{
        minHeight: 46,
        padding: "0 9px",
        fontSize: 15,
        gap: 6,
        ...(chosen ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
      }}
      aria-pressed={chosen}
      onClick={onChoose}
    >
      {children}
    </button>
  );
}

export function LineTabs({
  view,
  chosen,
  onChoose,
}: {
  view: VisitView;
  chosen: string;
  onChoose: (id: string) => void;
}): ReactElement {
  const options: Option[] = view.visit.options;
  const there = view.visit.home.in_place.length > 0;
  return (
    <div className="flex gap-2 flex-wrap" role="group" aria-label={say("Lines")}>
      {there && (
        <Tab chosen={chosen === TODAY} onChoose={() => onChoose(TODAY)}>
          {say("Today")}
        </Tab>
      )}
      {options.map((o, i) => {
        const status = statusOf(view, o.id);
        return (
          <Tab key={o.id} chosen={o.id === chosen} onChoose={() => onChoose(o.id)}>
            <span className="num">{LETTER(i)}</span>
            {o.name}
            <StateMark kind={STATUS_MARK[status] ?? "say"} size={17} label={status} />
          </Tab>
        );
      })}
    </div>
  );
}

export function NewLine({
  busy,
  full,
  onNew,
}: {
  busy: boolean;
  full: boolean;
  onNew: () => void;
}): ReactElement {
  return (
    <button
      className="key bare"
      style={{ padding: "0 12px" }}
      aria-label={say("New system")}
      title={say("New system")}
      disabled={busy || full}
      onClick={onNew}
    >
      <Plus size={20} aria-hidden="true" />
    </button>
  );
}
