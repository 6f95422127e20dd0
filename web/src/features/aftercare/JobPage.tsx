/** A job: its plan, its steps, its proof, its care. What comes next stands on the counter. */
import type { ReactElement } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { listed } from "../../app/names";
import { Counter, Head } from "../../app/Shell";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Bleach } from "./Bleach";
import { CareView } from "./Care";
import { today } from "./dates";
import { EndedNote, Refused } from "./Ended";
import { useDo, useJob, type Doing, type JobView, type Sheet } from "./hooks";
import { PlanView } from "./Plan";
import { ProofView } from "./Proof";
import { SheetPicker } from "./SheetPicker";
import { nextStep, SheetView, stepsDone } from "./Steps";
import { spoken, say } from "../../app/language";

const PARTS = spoken([
  ["plan", "Plan"],
  ["steps", "Steps"],
  ["proof", "Proof"],
  ["care", "Care"],
] as const);
type Part = (typeof PARTS)[number][0];

/** Steps of these sheets are done before a line is in use. */
const IN_THE_FITTING = ["fit", "disinfect"];

/** Parts of a job; what others fitted has its care alone. */
const partsOf = (job: JobView): readonly (readonly [Part, string])[] =>
  job.job.proposal === "" ? PARTS.filter(([p]) => p === "care") : PARTS;

/** Where one looks first: what a job waits for. */
export function firstPart(job: JobView): Part {
  const s = job.standing;
  if (s.state === "to plan") return "plan";
  if (s.state === "planned") return "steps";
  return s.state === "short" || s.unproved.length > 0 ? "proof" : "care";
}

function StepsPart({
  job,
  picked,
  onPick,
  onDo,
}: {
  job: JobView;
  picked: Sheet | undefined;
  onPick: (key: string) => void;
  onDo: (d: Doing) => void;
}): ReactElement {
  if (!picked) return <p className="text-l py-4">{say("This system has no steps of its own.")}</p>;
  const done = (s: Sheet): string =>
    say("{job} of {length}", { job: stepsDone(job, s), length: s.steps.length });
  return (
    <SheetPicker sheets={job.job.sheets} picked={picked.key} note={done} onPick={onPick}>
      <SheetView job={job} sheet={picked} onDo={onDo} />
      {picked.purpose === "disinfect" && <Bleach job={job} onDo={onDo} />}
    </SheetPicker>
  );
}

/** The one thing that comes next, for the end of the counter. */
function Next({
  job,
  part,
  picked,
  onDo,
  onPart,
}: {
  job: JobView;
  part: Part;
  picked: Sheet | undefined;
  onDo: (d: Doing) => void;
  onPart: (p: Part, sheet?: string) => void;
}): ReactElement | null {
  const go = (words: string, act: () => void): ReactElement => (
    <button className="key go" style={{ minHeight: 48 }} onClick={act}>
      {words}
    </button>
  );
  const n = picked ? nextStep(job, picked) : -1;
  if (part === "steps" && picked && n >= 0)
    return go(say("Step {x} is done", { x: n + 1 }), () =>
      onDo({ what: "tick", body: { sheet: picked.key, step: n, done: true, left_out: "" } }),
    );
  if (part === "steps" && job.job.fitted_on === null) {
    const open = job.job.sheets.find(
      (s) => IN_THE_FITTING.includes(s.purpose) && nextStep(job, s) >= 0,
    );
    if (open)
      return go(say("On to {title}", { title: open.title }), () => onPart("steps", open.key));
    return go(say("It is fitted today"), () =>
      onDo({ what: "fitted", body: { version: job.version, on: today(), left_out: "" } }),
    );
  }
  const parts = partsOf(job);
  const after = parts[parts.findIndex(([p]) => p === part) + 1];
  return after
    ? go(say("On to {toLowerCase}", { toLowerCase: after[1].toLowerCase() }), () =>
        onPart(after[0]),
      )
    : null;
}

export function JobPage(): ReactElement {
  const { id = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const job = useJob(id);
  const act = useDo(id);
  const j = job.data;
  if (!j)
    return (
      <div className="p-8">
        {job.isPending ? (
          <Waiting what={say("Fetching the job.")} />
        ) : (
          <Trouble error={job.error} again={() => void job.refetch()} />
        )}
      </div>
    );
  const part = (params.get("part") as Part | null) ?? firstPart(j);
  const open = j.job.sheets.find((s) => nextStep(j, s) >= 0);
  const picked = j.job.sheets.find((s) => s.key === params.get("sheet")) ?? open ?? j.job.sheets[0];
  const show = (p: Part, sheet?: string): void =>
    setParams(sheet ? { part: p, sheet } : { part: p }, { replace: true });
  const onDo = (d: Doing): void => act.mutate(d);
  return (
    <div className="screen work">
      <Head title={j.customer} sub={listed(j.home, j.place)}>
        {j.job.proposal !== "" && (
          <Link className="key bare" to={`/proposals/${j.job.proposal}`}>
            {say("Proposal")}
          </Link>
        )}
        <Link className="key bare" to="/due">
          {say("What is due")}
        </Link>
      </Head>
      <main className="scroll px-8 pb-8">
        <div className="max-w-[1100px] mx-auto pt-2">
          <Refused act={act} onDo={onDo} />
          <EndedNote job={j} onDo={onDo} />
          {part === "plan" && <PlanView job={j} onDo={onDo} />}
          {part === "steps" && (
            <StepsPart job={j} picked={picked} onPick={(k) => show("steps", k)} onDo={onDo} />
          )}
          {part === "proof" && <ProofView job={j} onDo={onDo} />}
          {part === "care" && <CareView job={j} onDo={onDo} onSteps={(k) => show("steps", k)} />}
        </div>
      </main>
      <Counter end={<Next job={j} part={part} picked={picked} onDo={onDo} onPart={show} />}>
        <div className="seg" role="group" aria-label={say("Part of the job")}>
          {partsOf(j).map(([p, name]) => (
            <button key={p} aria-pressed={p === part} onClick={() => show(p)}>
              {name}
            </button>
          ))}
        </div>
      </Counter>
    </div>
  );
}
