/** A bottle for the laboratory: its steps, its chain and its clock. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { lowerFirst } from "../../app/names";
import { type ReactElement } from "react";

import { usePutLabSample } from "../../api/hooks";
import type { LabKind, LabPreview, LabSample } from "../../api/types";
import { upload } from "../../api/upload";
import { StateMark } from "../../ui/marks";
import { StrikeKey } from "../../ui/StrikeKey";
import { useTakeBack } from "../../ui/TakeBack";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { BottleTimes } from "./BottleTimes";
import { clock, exactNow, useNow } from "./timers";
import { dayAndClock } from "../../app/when";
import { spoken, say } from "../../app/language";

const CHAIN = spoken([
  ["handed_at", "Handed over"],
  ["received_at", "Received"],
  ["reported_at", "Reported"],
] as const);

/** Fetches the report of a bottle from the laboratory: the simulated one here. */
function useReport(bottle: LabSample): { fetchIt: () => void; pending: boolean; error: unknown } {
  const { id, view } = useVisitContext();
  const put = usePutLabSample(id);
  const client = useQueryClient();
  const { mutate, isPending, error } = useMutation({
    mutationFn: async () => {
      const r = await fetch(`/api/visits/${id}/standins/laboratory/${bottle.id}`);
      if (!r.ok) throw new Error(say("no report"));
      await upload<LabPreview>(
        `/api/visits/${id}/samples/${bottle.sample}/lab-results`,
        await r.blob(),
        "text/csv",
      );
      await put.mutateAsync({
        bottle: { ...bottle, reported_at: exactNow() },
        version: view.versions[bottle.id],
      });
    },
    onSettled: () => void client.invalidateQueries({ queryKey: ["visit", id] }),
  });
  return { fetchIt: () => mutate(), pending: isPending, error };
}

/** When a report is expected, or the key that fetches it. */
function ReportDue({
  bottle,
  kind,
  fetchIt,
  pending,
}: {
  bottle: LabSample;
  kind: LabKind | undefined;
  fetchIt: () => void;
  pending: boolean;
}): ReactElement | null {
  const { view } = useVisitContext();
  const at = view.reports[bottle.id];
  const now = useNow(at !== undefined);
  if (at === undefined) return null;
  const left = new Date(at).getTime() - now;
  if (left > 0)
    return (
      <span className="text-m num" role="timer">
        {say("report in {left}", { left: clock(left) })}
      </span>
    );
  if (view.lab[bottle.id]?.overdue || !kind?.analytes.length) return null;
  return (
    <button className="key" style={{ minHeight: 46 }} disabled={pending} onClick={fetchIt}>
      {pending ? say("Fetching") : say("Fetch the report")}
      <span className="font-normal text-s text-ink-2">{say("simulated")}</span>
    </button>
  );
}

/** Where a bottle has been: drawn, handed over, received, reported. */
function Way({ bottle }: { bottle: LabSample }): ReactElement {
  const been = CHAIN.flatMap(([k, w]) => {
    const at = bottle[k];
    return at ? [`${lowerFirst(w)} ${dayAndClock(at)}`] : [];
  });
  const said = [
    say("drawn {drawn_at}", { drawn_at: dayAndClock(bottle.drawn_at) }),
    ...been,
    bottle.laboratory,
  ];
  if (bottle.seal) said.push(say("seal {seal}", { seal: bottle.seal }));
  return <span className="block text-s text-ink-2">{said.filter((w) => w !== "").join(", ")}</span>;
}

function stateOf(bottle: LabSample, overdue: boolean): "no" | "done" | "part" {
  if (overdue) return "no";
  return bottle.reported_at ? "done" : "part";
}

const REASONS = spoken([
  "Broken or leaked",
  "Drawn wrong",
  "Another glass",
  "Not wanted after all",
]);

/** Strikes a bottle with its reason; for ten seconds it can be taken back. */
function StrikeBottle({ bottle, name }: { bottle: LabSample; name: string }): ReactElement {
  const { id, view } = useVisitContext();
  const put = usePutLabSample(id);
  const offer = useTakeBack();
  const back = (version: number): void =>
    put.mutate({ bottle: { ...bottle, struck_at: null, struck_because: "" }, version });
  const strike = (because: string): void =>
    put.mutate(
      {
        bottle: { ...bottle, struck_at: exactNow(), struck_because: because },
        version: view.versions[bottle.id],
      },
      {
        onSuccess: (saved) =>
          offer(say("{name} crossed out: {because}", { name, because }), () => back(saved.version)),
      },
    );
  return (
    <>
      <StrikeKey
        words={say("Strike it")}
        reasons={REASONS}
        busy={put.isPending}
        onStrike={strike}
      />
      <Trouble error={put.error} />
    </>
  );
}

export function Bottle({
  bottle,
  kind,
}: {
  bottle: LabSample;
  kind: LabKind | undefined;
}): ReactElement {
  const { id, view } = useVisitContext();
  const put = usePutLabSample(id);
  const report = useReport(bottle);
  const s = view.lab[bottle.id];
  const overdue = s?.overdue ?? false;
  const next = CHAIN.find(([k]) => bottle[k] == null);
  const version = view.versions[bottle.id];
  return (
    <li className="border-b border-rule py-2">
      <div className="flex gap-3 items-center flex-wrap">
        <StateMark
          kind={stateOf(bottle, overdue)}
          size={20}
          label={overdue ? "overdue" : say("on its way")}
        />
        <span className="flex-1 min-w-[220px]">
          <b>{kind?.name ?? bottle.kind}</b>
          <Way bottle={bottle} />
        </span>
        <ReportDue bottle={bottle} kind={kind} {...report} />
        {next && (
          <button
            className="key"
            style={{ minHeight: 46 }}
            disabled={put.isPending}
            onClick={() => put.mutate({ bottle: { ...bottle, [next[0]]: exactNow() }, version })}
          >
            {say("{x} now", { x: next[1] })}
          </button>
        )}
        <StrikeBottle bottle={bottle} name={kind?.name ?? bottle.kind} />
      </div>
      {s && (
        <p className={`text-m ${overdue ? "text-zest-ink font-semibold" : "text-ink-2"}`}>
          {s.sentence}
        </p>
      )}
      <BottleTimes bottle={bottle} onPut={(b) => put.mutateAsync({ bottle: b, version })} />
      <Trouble error={put.error ?? report.error} />
    </li>
  );
}
