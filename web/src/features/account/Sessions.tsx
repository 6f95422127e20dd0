/** Where one is signed in, and an end to it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { api, data } from "../../api/client";
import { Trouble } from "../../ui/Trouble";
import { moment } from "../../app/when";
import { say } from "../../app/language";

function device(said: string): string {
  const system = /Android|iPhone|iPad|Windows|Mac OS|Linux/.exec(said)?.[0] ?? say("a device");
  return /Mobile|Tablet|iPad/.test(said) ? say("{system}, handheld", { system }) : system;
}

export function Sessions(): ReactElement {
  const client = useQueryClient();
  const sessions = useQuery({
    queryKey: ["sessions"],
    queryFn: () => data(api.GET("/api/session/all")),
  });
  const end = useMutation({
    mutationFn: (id: string) =>
      data(api.DELETE("/api/session/all/{id}", { params: { path: { id } } })),
    onSettled: () => void client.invalidateQueries({ queryKey: ["sessions"] }),
  });
  return (
    <section aria-labelledby="sessions" className="mt-8">
      <h2 id="sessions">{say("Where you are signed in")}</h2>
      <p className="text-m text-ink-2">
        {say(
          "A session ends by itself after four hours without use. End one that you do not know.",
        )}
      </p>
      <Trouble error={sessions.error ?? end.error} />
      <ul>
        {(sessions.data ?? []).map((s) => (
          <li key={s.id} className="flex gap-4 items-center border-b border-rule min-h-12">
            <span className="flex-1">
              {say("{device}, last used {seen_at}", {
                device: device(s.device),
                seen_at: moment(s.seen_at),
              })}
            </span>
            {s.this ? (
              <b>{say("this one")}</b>
            ) : (
              <button className="key bare" onClick={() => end.mutate(s.id)}>
                {say("End it")}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
