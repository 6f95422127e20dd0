/** Calendars that read for somebody by a secret address, and an end to each. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { api, data, every } from "../../api/client";
import { say } from "../../app/language";
import { moment } from "../../app/when";
import { Trouble } from "../../ui/Trouble";

export function Calendars(): ReactElement | null {
  const client = useQueryClient();
  const feeds = useQuery({
    queryKey: ["feeds"],
    queryFn: () => every((page) => api.GET("/api/feeds", { params: { query: page } })),
  });
  const end = useMutation({
    mutationFn: (id: string) => data(api.DELETE("/api/feeds/{id}", { params: { path: { id } } })),
    onSettled: () => void client.invalidateQueries({ queryKey: ["feeds"] }),
  });
  const open = (feeds.data ?? []).filter((f) => f.revoked_at === null);
  if (open.length === 0 && !feeds.error) return null;
  return (
    <section aria-labelledby="calendars" className="mt-8">
      <h2 id="calendars">{say("Calendars that read for you")}</h2>
      <p className="text-m text-ink-2">
        {say("They go on after a new password. End one whose address somebody else may have.")}
      </p>
      <Trouble error={feeds.error ?? end.error} />
      <ul>
        {open.map((f) => (
          <li key={f.id} className="flex gap-4 items-center border-b border-rule min-h-12">
            <span className="flex-1">
              {f.home === null
                ? say("your round, made {made_at}", { made_at: moment(f.made_at) })
                : say("one home, made {made_at}", { made_at: moment(f.made_at) })}
            </span>
            <button className="key bare" onClick={() => end.mutate(f.id)}>
              {say("End it")}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
