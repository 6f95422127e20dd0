/** Homes that may be one, that turned out to be one, and who asks for this one. */
import { useMutation, useQueryClient, type UseMutationResult } from "@tanstack/react-query";
import type { ReactElement, ReactNode } from "react";
import { useNavigate } from "react-router";

import { api, data } from "../../api/client";
import { say } from "../../app/language";
import { Trouble } from "../../ui/Trouble";
import type { HomeYears } from "./hooks";

type Done<T> = UseMutationResult<unknown, Error, T>;

/** What is done about a home, after which everything is read anew. */
function useDone<T>(send: (of: T) => Promise<unknown>): Done<T> {
  const client = useQueryClient();
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() });
}

function Line({ said, children }: { said: string; children: ReactNode }): ReactElement {
  return (
    <li className="flex flex-wrap gap-x-4 items-center min-h-12">
      <span className="flex-1 min-w-[260px]">{said}</span>
      {children}
    </li>
  );
}

function Alike({ home }: { home: HomeYears }): ReactElement {
  const merge = useDone((other: string) =>
    data(
      api.POST("/api/homes/{id}/merge", {
        params: { path: { id: home.id } },
        body: { version: home.version, with_home: other },
      }),
    ),
  );
  return (
    <>
      {home.alike.map((h) => (
        <Line
          key={h.id}
          said={say("{customer}, {home}, may be this home: the name and the place agree.", {
            customer: h.customer,
            home: h.home,
          })}
        >
          <button className="key" disabled={merge.isPending} onClick={() => merge.mutate(h.id)}>
            {say("It is this home: make one of both")}
          </button>
        </Line>
      ))}
      <Trouble error={merge.error} />
    </>
  );
}

function Merged({ home }: { home: HomeYears }): ReactElement {
  const undo = useDone((id: string) =>
    data(api.POST("/api/homes/{id}/unmerge", { params: { path: { id } } })),
  );
  return (
    <>
      {home.merged
        .filter((h) => h.undo)
        .map((h) => (
          <Line
            key={h.id}
            said={say("{customer}, {home}, became one with this home.", {
              customer: h.customer,
              home: h.home,
            })}
          >
            <button className="key" disabled={undo.isPending} onClick={() => undo.mutate(h.id)}>
              {say("Undo, within a day")}
            </button>
          </Line>
        ))}
      <Trouble error={undo.error} />
    </>
  );
}

function AskedBy({ home }: { home: HomeYears }): ReactElement {
  const navigate = useNavigate();
  const give = useDone(({ to, give }: { to: string; give: boolean }) =>
    data(
      api.POST("/api/homes/{id}/give", {
        params: { path: { id: home.id } },
        body: { to, give },
      }),
    ).then(() => give && navigate("/")),
  );
  return (
    <>
      {home.asked_by.map((p) => (
        <Line key={p.id} said={say("{name} asks to take on this home.", { name: p.name })}>
          <button
            className="key"
            disabled={give.isPending}
            onClick={() => give.mutate({ to: p.id, give: true })}
          >
            {say("Give it")}
          </button>
          <button
            className="key bare"
            disabled={give.isPending}
            onClick={() => give.mutate({ to: p.id, give: false })}
          >
            {say("Keep it")}
          </button>
        </Line>
      ))}
      <Trouble error={give.error} />
    </>
  );
}

export function OneHome({ home }: { home: HomeYears }): ReactElement | null {
  const undoable = home.merged.filter((h) => h.undo);
  if (home.alike.length + undoable.length + home.asked_by.length === 0) return null;
  return (
    <ul className="border-[1.5px] border-ink bg-slip px-4 py-2 my-3" aria-label={say("To decide")}>
      <AskedBy home={home} />
      <Alike home={home} />
      <Merged home={home} />
    </ul>
  );
}
