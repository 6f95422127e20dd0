/** A home that was visited before: found by name or place, visited again with one touch. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState, type ReactElement } from "react";

import { listed } from "../../app/names";
import { api, data } from "../../api/client";
import { Trouble } from "../../ui/Trouble";
import { VisitAgain } from "../before/VisitAgain";
import { dayLong } from "../../app/when";
import { say } from "../../app/language";

/** Homes of this whole name that colleagues look after: the place alone, and to be asked for. */
function Elsewhere({ find }: { find: string }): ReactElement | null {
  const client = useQueryClient();
  const key = ["homes", "elsewhere", find];
  const found = useQuery({
    queryKey: key,
    queryFn: () => data(api.GET("/api/homes/elsewhere", { params: { query: { find } } })),
  });
  const ask = useMutation({
    mutationFn: (id: string) => data(api.POST("/api/homes/{id}/ask", { params: { path: { id } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: key }),
  });
  return (
    <ul className="mt-2">
      {(found.data ?? []).map((h) => (
        <li key={h.id} className="flex items-center gap-4 border-b border-rule min-h-[60px]">
          <span className="flex-1 min-w-0">
            {h.place === ""
              ? say("A colleague looks after a home of this name.")
              : say("A colleague looks after a home of this name at {place}.", { place: h.place })}
          </span>
          {h.asked ? (
            <span className="text-m text-ink-2">{say("You asked for it.")}</span>
          ) : (
            <button className="key" disabled={ask.isPending} onClick={() => ask.mutate(h.id)}>
              {say("Ask for it")}
            </button>
          )}
        </li>
      ))}
      <Trouble error={ask.error} />
    </ul>
  );
}

export function KnownHomes(): ReactElement {
  const [text, setText] = useState("");
  const find = useDeferredValue(text.trim());
  const found = useQuery({
    queryKey: ["homes", find],
    enabled: find.length >= 2,
    queryFn: () => data(api.GET("/api/visits/homes", { params: { query: { find, most: 12 } } })),
    placeholderData: (old) => old,
  });
  return (
    <section aria-label={say("Homes visited before")} className="pb-5">
      <label className="field max-w-[420px]">
        <span>{say("Been there before? Name or place")}</span>
        <input
          className="input"
          value={text}
          maxLength={80}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <Trouble error={found.error} />
      {find.length >= 2 && found.data?.length === 0 && (
        <p className="text-m text-ink-2 mt-2">{say("No such home yet.")}</p>
      )}
      {find.length >= 3 && <Elsewhere find={find} />}
      {find.length >= 2 && (
        <ul className="mt-2">
          {(found.data ?? []).map((h) => (
            <li key={h.visit} className="flex items-center gap-4 border-b border-rule min-h-[60px]">
              <span className="flex-1 min-w-0">
                <b>{h.customer}</b>
                <span className="block text-m text-ink-2">
                  {say("{home} · {x}, last {last}", {
                    home: listed(h.home, h.place),
                    x: h.visits === 1 ? "one visit" : `${h.visits} visits`,
                    last: dayLong(h.last),
                  })}
                </span>
              </span>
              <VisitAgain visit={h.visit} words={say("Visit again")} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
