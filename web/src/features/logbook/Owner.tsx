/** Whose home it is, who owned it before, and a new owner from a day on. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { say } from "../../app/language";
import { useMe } from "../../api/hooks";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { said, today } from "../aftercare/dates";
import type { Customer } from "../../api/types";
import { NOBODY } from "../before/newHome";
import type { HomeYears } from "./hooks";
import { ReachedFields } from "./People";

type Who = Customer & { since: string };

function OwnerForm({ home, onClose }: { home: HomeYears; onClose: () => void }): ReactElement {
  const client = useQueryClient();
  const [who, setWho] = useState<Who>({ ...NOBODY, since: today() });
  const change = useMutation({
    mutationFn: ({ since, ...customer }: Who) =>
      data(
        api.PUT("/api/homes/{id}/owner", {
          params: { path: { id: home.id } },
          body: { version: home.version, customer, since },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries();
      onClose();
    },
  });
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(who);
      }}
    >
      <p className="text-b">
        {say(
          "The home keeps its readings, jobs and what falls due. Links of {customer} end, and " +
            "what was offered to them and not signed is withdrawn.",
          { customer: home.customer },
        )}
      </p>
      <ReachedFields of={who} set={setWho} />
      <label className="field">
        <span>{say("Theirs since")}</span>
        <input
          className="input"
          type="date"
          required
          max={today()}
          value={who.since}
          onChange={(e) => setWho({ ...who, since: e.target.value })}
        />
      </label>
      <Trouble error={change.error} />
      <button className="key go justify-self-end" disabled={change.isPending}>
        {say("Change the owner")}
      </button>
    </form>
  );
}

/** Takes those who owned it before out, asked twice. */
function EraseFormer({ home }: { home: string }): ReactElement {
  const client = useQueryClient();
  const [sure, setSure] = useState(false);
  const erase = useMutation({
    mutationFn: () =>
      data(api.POST("/api/homes/{id}/former/erase", { params: { path: { id: home } } })),
    onSuccess: () => client.invalidateQueries(),
  });
  return (
    <>
      <button
        className="key bare"
        disabled={erase.isPending}
        onClick={() => (sure ? erase.mutate() : setSure(true))}
      >
        {sure ? say("Yes, erase their names and words for good") : say("Erase former owners")}
      </button>
      <Trouble error={erase.error} again={() => erase.mutate()} />
    </>
  );
}

export function Owner({ home }: { home: HomeYears }): ReactElement {
  const [open, setOpen] = useState(false);
  const manager = useMe().data?.role === "manager";
  return (
    <p className="text-m text-ink-2 flex gap-3 items-center flex-wrap">
      {home.former.map(([name, until]) => (
        <span key={name + until}>
          {say("Before: {name}, until {until}.", { name, until: said(until) })}
        </span>
      ))}
      <button className="key bare -ml-2" onClick={() => setOpen(true)}>
        {say("New owner")}
      </button>
      {home.former.length > 0 && manager && <EraseFormer home={home.id} />}
      {open && (
        <Sheet title={say("The home has a new owner")} onClose={() => setOpen(false)}>
          <OwnerForm home={home} onClose={() => setOpen(false)} />
        </Sheet>
      )}
    </p>
  );
}
