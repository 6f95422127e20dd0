/** When the visit is made, and by whom; it can be moved while nothing was read at it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useMe } from "../../api/hooks";
import { Trouble } from "../../ui/Trouble";
import { usePeople } from "../people/hooks";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

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
  if (samples.some((s) => s.readings.length > 0)) return null;
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
      <Trouble error={plan.error} />
    </div>
  );
}
