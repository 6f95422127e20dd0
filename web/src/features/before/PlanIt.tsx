/** When the visit is made, and by whom; it can be moved while nothing was read at it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useMe } from "../../api/hooks";
import { Trouble } from "../../ui/Trouble";
import { usePeople } from "../people/hooks";
import { useVisitContext } from "../visit/context";
import { say, spoken } from "../../app/language";
import { ReasonKey } from "../../ui/ReasonKey";

/** A time as the field for it wants it: local, to the minute. */
function local(iso: string): string {
  const d = new Date(iso);
  return new Date(d.getTime() - d.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

function Who({ name, onGive }: { name: string; onGive: (id: string) => void }): ReactElement {
  const people = usePeople().data?.people ?? [];
  const may = people.filter((p) => p.active && p.role !== "installer");
  const now = may.find((p) => p.name === name);
  return (
    <label className="field">
      <span>{say("Who makes it")}</span>
      <select className="input" value={now?.id ?? ""} onChange={(e) => onGive(e.target.value)}>
        {!now && <option value="">{name}</option>}
        {may.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
    </label>
  );
}

type Closing = { how: "cancelled" | "no_show" | "not_made" | null; because: string };
const HOWS: [NonNullable<Closing["how"]>, string][] = spoken([
  ["cancelled", "They cancelled"],
  ["no_show", "Nobody was there"],
  ["not_made", "We did not go"],
]);

/** A visit that is not made leaves the list, with its reason. */
function NotMade({
  busy,
  onClose,
}: {
  busy: boolean;
  onClose: (to: Closing) => void;
}): ReactElement {
  const [how, setHow] = useState<Closing["how"]>("cancelled");
  return (
    <ReasonKey
      words={say("It is not made")}
      title={say("This visit is not made")}
      hint={say("It leaves the list and stays on record. To move it, change its day.")}
      busy={busy}
      more={
        <div role="radiogroup" aria-label={say("How")} className="flex gap-2 flex-wrap">
          {HOWS.map(([value, words]) => (
            <label key={value} className="flex gap-2 items-center min-h-11 pr-3">
              <input
                type="radio"
                name="how"
                className="w-5 h-5"
                checked={how === value}
                onChange={() => setHow(value)}
              />
              {words}
            </label>
          ))}
        </div>
      }
      onReason={(because) => onClose({ how, because })}
    />
  );
}

export function PlanIt(): ReactElement | null {
  const { id, view } = useVisitContext();
  const me = useMe();
  const client = useQueryClient();
  const { started_at, consultant, samples } = view.visit;
  const [typed, setTyped] = useState("");
  const shown = typed === "" ? local(started_at) : typed;
  const plan = useMutation({
    mutationFn: (to: { at: string; consultant: string | null }) =>
      data(
        api.PUT("/api/visits/{id}/plan", {
          params: { path: { id } },
          body: {
            version: view.versions.visit ?? 1,
            started_at: to.at,
            consultant: to.consultant,
          },
        }),
      ),
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ["visit", id] });
      await client.invalidateQueries({ queryKey: ["visits"] });
      setTyped("");
    },
  });
  const close = useMutation({
    mutationFn: (to: Closing) =>
      data(
        api.PUT("/api/visits/{id}/close", {
          params: { path: { id } },
          body: { version: view.versions.visit ?? 1, ...to },
        }),
      ),
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ["visit", id] });
      await client.invalidateQueries({ queryKey: ["visits"] });
    },
  });
  if (samples.some((s) => s.readings.length > 0)) return null;
  if (view.closed)
    return (
      <div
        role="status"
        className="flex gap-4 items-center flex-wrap mb-4 border-[1.5px] border-ink p-3"
      >
        <p className="flex-1 text-b">
          <b>{say("This visit is closed:")}</b> {view.closed.because}
        </p>
        <button className="key" onClick={() => close.mutate({ how: null, because: "" })}>
          {say("Open it again")}
        </button>
        <Trouble error={close.error} />
      </div>
    );
  return (
    <div className="flex gap-4 items-end flex-wrap mb-4">
      <label className="field">
        <span>{say("Planned for")}</span>
        <input
          type="datetime-local"
          className="input"
          value={shown}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={() => {
            if (typed !== "" && typed !== local(started_at))
              plan.mutate({ at: new Date(typed).toISOString(), consultant: null });
          }}
        />
      </label>
      {me.data?.role === "manager" && (
        <Who
          name={consultant}
          onGive={(to) => plan.mutate({ at: started_at, consultant: to === "" ? null : to })}
        />
      )}
      <NotMade busy={close.isPending} onClose={close.mutate} />
      <Trouble error={plan.error ?? close.error} />
    </div>
  );
}
