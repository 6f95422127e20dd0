/** A job that ended, or is to end; and the way back. */
import type { UseMutationResult } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { problemOf } from "../../api/client";
import { say } from "../../app/language";
import { dayLong } from "../../app/when";
import { ReasonKey } from "../../ui/ReasonKey";
import { Trouble } from "../../ui/Trouble";
import type { Doing, JobView } from "./hooks";

interface Props {
  job: JobView;
  onDo: (d: Doing) => void;
}

function Reopen({ job, onDo }: Props): ReactElement {
  return (
    <ReasonKey
      words={say("Open it again")}
      title={say("Open this job again")}
      hint={say("As for a complaint, or a part under warranty.")}
      busy={false}
      onReason={(because) => onDo({ what: "reopen", body: { version: job.version, because } })}
    />
  );
}

/** End a job that is open; open one again that is proved. */
export function EndOrReopen({ job, onDo }: Props): ReactElement | null {
  const { ended, fitted_on } = job.job;
  if (ended) return null;
  return (
    <div className="flex gap-3 pt-2">
      {job.standing.state === "proved" && <Reopen job={job} onDo={onDo} />}
      <ReasonKey
        words={fitted_on === null ? say("Cancel the job") : say("It was taken out")}
        title={fitted_on === null ? say("Cancel this job") : say("The equipment was taken out")}
        hint={say("Nothing of it falls due any more. What was read stays on record.")}
        busy={false}
        onReason={(because) => onDo({ what: "end", body: { version: job.version, because } })}
      />
    </div>
  );
}

/** That a job has ended, why, and the way back. */
export function EndedNote({ job, onDo }: Props): ReactElement | null {
  const { ended } = job.job;
  if (!ended) return null;
  return (
    <section role="status" className="border-[1.5px] border-ink bg-slip p-4 my-3 flex gap-4">
      <p className="flex-1 text-b">
        <b>{say("This job ended on {at}.", { at: dayLong(ended.at) })}</b> {ended.because}{" "}
        <span className="text-ink-2">({ended.by})</span>
      </p>
      <Reopen job={job} onDo={onDo} />
    </section>
  );
}

/** What the server refused; a fitter who is somewhere else then can be planned all the same. */
export function Refused({
  act,
  onDo,
}: {
  act: UseMutationResult<unknown, Error, Doing>;
  onDo: (d: Doing) => void;
}): ReactElement | null {
  if (!act.error) return null;
  const tried = act.variables;
  const booked = problemOf(act.error)?.code === "job.booked" && tried.what === "plan";
  return (
    <>
      <Trouble error={act.error} />
      {booked && (
        <button
          className="key mt-2"
          onClick={() => onDo({ what: "plan", body: { ...tried.body, anyway: true } })}
        >
          {say("Plan it all the same")}
        </button>
      )}
    </>
  );
}
