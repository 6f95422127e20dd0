/** What if: two more people, a lower pH, the next size up; what changes, check by check. */
import { useQuery } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { api, data } from "../../api/client";
import type { Option, WhatIf as Answer } from "../../api/types";
import { money, num, volume } from "../../app/show";
import { currentUnits } from "../../app/units";
import { StateMark, STATUS_MARK } from "../../ui/marks";
import { Sheet } from "../../ui/Sheet";
import { Trouble, Waiting } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

function signed(n: number, text: string): string {
  if (n === 0) return say("the same");
  return n > 0 ? say("{text} more", { text }) : say("{text} less", { text });
}

/** Cost, drain and work against the line as it is. */
function Differs({ w }: { w: Answer }): ReactElement {
  const { view, units } = useVisitContext();
  const { settings, horizon } = view.visit;
  const cost = Number(w.cost);
  const waste = Math.round(w.waste_gal_year);
  const minutes = Math.round(w.own_minutes);
  return (
    <p className="text-m">
      {say("{cost} over {horizon} years; {waste} to the drain a year; {minutes} work", {
        cost: signed(cost, money(Math.abs(cost), settings.currency)),
        horizon,
        waste: signed(waste, volume(Math.abs(w.waste_gal_year), units)),
        minutes: signed(minutes, `${num(Math.abs(w.own_minutes))} min`),
      })}
    </p>
  );
}

function Changes({ w }: { w: Answer }): ReactElement {
  if (w.changes.length === 0)
    return <p className="text-m text-ink-2">{say("Every check answers as before.")}</p>;
  return (
    <ul className="mt-1">
      {w.changes.map((c, i) => (
        <li key={`${c.id}${i}`} className="text-m flex gap-2">
          <StateMark kind={STATUS_MARK[c.after ?? "met"] ?? "done"} size={16} />
          <span>
            <b>{c.stage}</b>: {c.sentence}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Case({ w, onTake }: { w: Answer; onTake: (o: Option) => void }): ReactElement {
  const { option } = w;
  return (
    <li className="border-b border-rule py-3 grid grid-cols-[minmax(0,1fr)_auto] gap-4">
      <div>
        <b className="font-d text-l flex gap-2 items-center">
          <StateMark
            kind={w.impossible ? "unk" : (STATUS_MARK[w.status] ?? "say")}
            size={20}
            label={w.status}
          />
          {w.label}
        </b>
        {w.impossible ? (
          <p className="text-m text-ink-2">{w.impossible}</p>
        ) : (
          <>
            <Differs w={w} />
            <Changes w={w} />
          </>
        )}
      </div>
      {option && (
        <button className="key self-start" onClick={() => onTake(option)}>
          {say("Take this size")}
        </button>
      )}
    </li>
  );
}

export function WhatIf({
  option,
  onClose,
  onTake,
}: {
  option: Option;
  onClose: () => void;
  onTake: (o: Option) => void;
}): ReactElement {
  const { id, view, units } = useVisitContext();
  const asked = useQuery({
    queryKey: ["visit", id, "what-if", option.id, view.versions[option.id], units],
    queryFn: () =>
      data(
        api.GET("/api/visits/{id}/options/{option_id}/what-if", {
          params: { path: { id, option_id: option.id }, query: currentUnits() },
        }),
      ),
  });
  return (
    <Sheet
      title={say("What if? {name}", { name: option.name })}
      width={880}
      fixedHead
      onClose={onClose}
    >
      <div className="scroll min-h-0" tabIndex={0} role="group" aria-label={say("What changes")}>
        {asked.isPending && <Waiting what={say("Working the system out again.")} />}
        <Trouble error={asked.error} again={() => void asked.refetch()} />
        <ul>
          {asked.data?.map((w) => (
            <Case key={w.id} w={w} onTake={onTake} />
          ))}
        </ul>
      </div>
    </Sheet>
  );
}
