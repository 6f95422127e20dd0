/** Lines that the tool proposes of its own: how far the search is, and its answer. */
import { useEffect, useState, type ReactElement } from "react";

import { useChangeHome } from "../../api/hooks";
import type { Home, Option, Suggestion } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { GoalKeys } from "../before/Goals";
import { Wheel } from "../../glass/Slice";
import { StateMark } from "../../ui/marks";
import { Sheet } from "../../ui/Sheet";
import { useVisitContext } from "../visit/context";
import { Suggested } from "./Suggested";
import { say } from "../../app/language";

interface Going {
  what: string;
  done: number;
  of: number;
}

function useSearchStream(
  id: string,
  units: string,
  open: boolean,
  home: number,
): { going: Going | null; answer: Suggestion | null; failed: string } {
  const [going, setGoing] = useState<Going | null>(null);
  const [answer, setAnswer] = useState<Suggestion | null>(null);
  const [failed, setFailed] = useState("");
  useEffect(() => {
    if (!open) return;
    const source = new EventSource(`/api/visits/${id}/suggest/stream?units=${units}`);
    source.addEventListener("progress", (e) =>
      setGoing(JSON.parse((e as MessageEvent<string>).data) as Going),
    );
    source.addEventListener("answer", (e) => {
      setAnswer(JSON.parse((e as MessageEvent<string>).data) as Suggestion);
      source.close();
    });
    source.addEventListener("failed", (e) => {
      const f = JSON.parse((e as MessageEvent<string>).data) as { title: string; remedy: string };
      setFailed(`${f.title} ${f.remedy}`);
      source.close();
    });
    source.onerror = () => {
      source.close();
      setFailed((was) => was || say("The server does not answer. Close this and try again."));
    };
    return () => source.close();
  }, [id, units, open, home]);
  return { going, answer, failed };
}

const SLICES = 9;

function Searching({ going }: { going: Going | null }): ReactElement {
  return (
    <p role="status" className="flex gap-4 items-center text-l py-8">
      <Wheel
        done={going ? Math.round((SLICES * going.done) / Math.max(1, going.of)) : 0}
        of={SLICES}
        r={30}
        label={say("how far the search is")}
      />
      {going ? say("Looking at {what}.", { what: going.what }) : say("Reading the catalog.")}
    </p>
  );
}

export function Suggest({
  onClose,
  onTake,
  full,
  names,
}: {
  onClose: () => void;
  onTake: (o: Option) => void;
  full: boolean;
  names: (id: string) => string;
}): ReactElement {
  const { id, units, view } = useVisitContext();
  const version = view.versions.home ?? 1;
  const { going, answer, failed } = useSearchStream(id, units, true, version);
  const change = useChangeHome(id);
  const { customer, home } = view.visit;
  const setGoals = (goals: Home["goals"]): void =>
    change.mutate({
      version,
      customer,
      home,
      edit: (told) => ({ ...told, home: { ...told.home, goals } }),
    });
  return (
    <Sheet
      title={say("What the catalog can do for this water")}
      width="full"
      fixedHead
      onClose={onClose}
    >
      <div
        className="scroll flex-1 min-h-0 pr-2"
        tabIndex={0}
        role="group"
        aria-label={say("The answer")}
      >
        <div className="mb-4" role="group" aria-label={say("What they ask of a system")}>
          <GoalKeys goals={home.goals} onChange={setGoals} />
          <Trouble error={change.error} />
        </div>
        {!answer && failed === "" && <Searching going={going} />}
        {failed !== "" && (
          <p role="alert" className="flex gap-3 text-l py-6">
            <StateMark kind="no" size={24} />
            {failed}
          </p>
        )}
        {answer && <Suggested s={answer} onTake={onTake} full={full} names={names} />}
        {full && (
          <p className="text-m text-ink-2 mt-2">
            {say("Six systems are enough to choose from: take one away first.")}
          </p>
        )}
      </div>
    </Sheet>
  );
}
