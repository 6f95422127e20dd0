/** A bottle for the laboratory: its steps, its chain and its clock. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type ReactElement } from "react";

import { usePutLabSample } from "../../api/hooks";
import type { LabKind, LabPreview, LabSample } from "../../api/types";
import { upload } from "../../api/upload";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { BottleTimes } from "./BottleTimes";
import { clock, exactNow, useNow } from "./timers";
import { dayAndClock } from "../../app/when";

const CHAIN = [
  ["handed_at", "Handed over"],
  ["received_at", "Received"],
  ["reported_at", "Reported"],
] as const;

export function Bottle({
  bottle,
  kind,
}: {
  bottle: LabSample;
  kind: LabKind | undefined;
}): ReactElement {
  const { id, view } = useVisitContext();
  const put = usePutLabSample(id);
  const s = view.lab[bottle.id];
  const next = CHAIN.find(([k]) => bottle[k] == null);
  const client = useQueryClient();
  const expected =
    view.reports[bottle.id] === undefined
      ? null
      : new Date(view.reports[bottle.id] ?? "").getTime();
  const now = useNow(expected !== null);
  const fetchReport = useMutation({
    mutationFn: async () => {
      const r = await fetch(`/api/visits/${id}/standins/laboratory/${bottle.id}`);
      if (!r.ok) throw new Error("no report");
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
  return (
    <li className="border-b border-rule py-2">
      <div className="flex gap-3 items-center flex-wrap">
        <StateMark
          kind={s?.overdue ? "no" : bottle.reported_at ? "done" : "part"}
          size={20}
          label={s?.overdue ? "overdue" : "on its way"}
        />
        <span className="flex-1 min-w-[220px]">
          <b>{kind?.name ?? bottle.kind}</b>
          <span className="block text-s text-ink-2">
            drawn {dayAndClock(bottle.drawn_at)}
            {CHAIN.filter(([k]) => bottle[k]).map(
              ([k, w]) => `, ${w.toLowerCase()} ${dayAndClock(bottle[k] ?? "")}`,
            )}
            {bottle.laboratory && `, ${bottle.laboratory}`}
            {bottle.seal && `, seal ${bottle.seal}`}
          </span>
        </span>
        {expected !== null && now < expected && (
          <span className="text-m num" role="timer">
            report in {clock(expected - now)}
          </span>
        )}
        {expected !== null &&
          now >= expected &&
          !s?.overdue &&
          (kind?.analytes.length ?? 0) > 0 && (
            <button
              className="key"
              style={{ minHeight: 46 }}
              disabled={fetchReport.isPending}
              onClick={() => fetchReport.mutate()}
            >
              {fetchReport.isPending ? "Fetching" : "Fetch the report"}
              <span className="font-normal text-s text-ink-2">simulated</span>
            </button>
          )}
        {next && (
          <button
            className="key"
            style={{ minHeight: 46 }}
            disabled={put.isPending}
            onClick={() =>
              put.mutate({
                bottle: { ...bottle, [next[0]]: exactNow() },
                version: view.versions[bottle.id],
              })
            }
          >
            {next[1]} now
          </button>
        )}
      </div>
      {s && (
        <p className={`text-m ${s.overdue ? "text-zest-ink font-semibold" : "text-ink-2"}`}>
          {s.sentence}
        </p>
      )}
      <BottleTimes
        bottle={bottle}
        onPut={(b) => put.mutateAsync({ bottle: b, version: view.versions[bottle.id] })}
      />
      <Trouble error={put.error ?? fetchReport.error} />
    </li>
  );
}
