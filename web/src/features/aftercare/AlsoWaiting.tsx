/** What waits beside the parts: bottles, kits, proposals that run out, water to be tested again. */
import {
  FileText,
  FlaskConical,
  Mail,
  MessageSquareWarning,
  RotateCcw,
  TriangleAlert,
  Wrench,
  type LucideIcon,
} from "lucide-react";
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { Trouble } from "../../ui/Trouble";
import { fromToday } from "./dates";
import { useWaiting, type WaitingLine } from "./hooks";
import { say } from "../../app/language";

const MOST = 6;
const SIGNS: Record<WaitingLine["kind"], LucideIcon> = {
  bottle: FlaskConical,
  kit: Wrench,
  proposal: FileText,
  again: TriangleAlert,
  case: MessageSquareWarning,
  asked: MessageSquareWarning,
  unmade: TriangleAlert,
  retest: RotateCcw,
  mail: Mail,
};

function Sign({ kind }: { kind: WaitingLine["kind"] }): ReactElement {
  const Drawn = SIGNS[kind];
  return <Drawn size={20} aria-hidden="true" />;
}

export function AlsoWaiting(): ReactElement | null {
  const waiting = useWaiting();
  const [all, setAll] = useState(false);
  const lines = waiting.data ?? [];
  if (waiting.isError) return <Trouble error={waiting.error} />;
  if (lines.length === 0) return null;
  return (
    <section aria-label={say("Also waiting")}>
      <h2 className="pt-6">{say("Also waiting")}</h2>
      <ul>
        {lines.slice(0, all ? lines.length : MOST).map((w, i) => (
          <li key={`${w.path}${w.what}${i}`} className="border-b border-rule">
            <Link
              to={w.path}
              className={
                "grid grid-cols-[24px_1fr_auto] gap-3 items-center min-h-[52px] py-1 text-ink " +
                "no-underline hover:bg-yuzu-pale px-2 -mx-2"
              }
            >
              <Sign kind={w.kind} />
              <span className="min-w-0">
                {w.whose !== "" && <b>{w.whose}: </b>}
                {w.what}
              </span>
              <b className={`text-m ${w.state === "overdue" ? "text-zest-ink" : ""}`}>
                {fromToday(w.on)}
              </b>
            </Link>
          </li>
        ))}
      </ul>
      {lines.length > MOST && (
        <button className="key bare -ml-2" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? say("Fewer") : say("{x} more", { x: lines.length - MOST })}
        </button>
      )}
    </section>
  );
}
