/** Who is at a home: each with their part, how they are reached, their language, and consent. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import type { Customer } from "../../api/types";
import { say, spoken } from "../../app/language";
import { LANGUAGES } from "../../app/languages.generated";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { NOBODY } from "../before/newHome";
import type { HomeYears } from "./hooks";

const MOST = 9;
const PARTS = spoken([
  ["owner", "owner"],
  ["tenant", "tenant"],
  ["decides", "decides too"],
  ["other", "somebody else"],
] as const);
const partOf = (p: Customer): string => PARTS.find(([part]) => part === p.part)?.[1] ?? p.part;

const REACHED = spoken([
  ["name", "Name", "text"],
  ["phone", "Telephone", "tel"],
  ["email", "E-mail", "email"],
] as const);

/** Name, telephone and e-mail. */
export function ReachedFields<T extends Customer>({
  of,
  set,
}: {
  of: T;
  set: (p: T) => void;
}): ReactElement {
  return (
    <>
      {REACHED.map(([key, label, type]) => (
        <label key={key} className="field">
          <span>{label}</span>
          <input
            className="input"
            type={type}
            required={key === "name"}
            maxLength={200}
            value={of[key]}
            onChange={(e) => set({ ...of, [key]: e.target.value })}
          />
        </label>
      ))}
    </>
  );
}

function OnePerson({
  of,
  first,
  set,
  onLeave,
}: {
  of: Customer;
  first: boolean;
  set: (p: Customer) => void;
  onLeave: () => void;
}): ReactElement {
  return (
    <fieldset className="border-0 border-b border-rule m-0 px-0 pb-4">
      <legend className="font-semibold mb-2">
        {first ? say("The customer") : of.name || say("Another person")}
      </legend>
      <div className="grid grid-cols-2 max-[520px]:grid-cols-1 wide:grid-cols-3 gap-3">
        <ReachedFields of={of} set={set} />
        <label className="field">
          <span>{say("Part")}</span>
          <select
            className="input"
            value={of.part}
            onChange={(e) => set({ ...of, part: e.target.value as Customer["part"] })}
          >
            {PARTS.map(([part, name]) => (
              <option key={part} value={part}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="field">
          <span>{say("Reads")}</span>
          <select
            className="input"
            value={of.language}
            onChange={(e) => set({ ...of, language: e.target.value })}
          >
            {Object.entries(LANGUAGES).map(([code, name]) => (
              <option key={code} value={code} lang={code}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex gap-2 items-center min-h-12 self-end">
          <input
            type="checkbox"
            className="w-6 h-6"
            checked={of.reminders}
            onChange={(e) => set({ ...of, reminders: e.target.checked })}
          />
          {say("Agreed to reminders by mail")}
        </label>
      </div>
      {!first && (
        <button type="button" className="key bare -ml-2 mt-1" onClick={onLeave}>
          {say("Take off the list")}
        </button>
      )}
    </fieldset>
  );
}

function PeopleForm({ home, onClose }: { home: HomeYears; onClose: () => void }): ReactElement {
  const client = useQueryClient();
  const [people, setPeople] = useState<Customer[]>(home.people);
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.PUT("/api/homes/{id}/people", {
          params: { path: { id: home.id } },
          body: { version: home.version, people },
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
        keep.mutate();
      }}
    >
      {people.map((p, n) => (
        <OnePerson
          key={n}
          of={p}
          first={n === 0}
          set={(to) => setPeople(people.map((x, i) => (i === n ? to : x)))}
          onLeave={() => setPeople(people.filter((_, i) => i !== n))}
        />
      ))}
      <Trouble error={keep.error} />
      <div className="flex gap-3 justify-end">
        {people.length < MOST && (
          <button
            type="button"
            className="key"
            onClick={() => setPeople([...people, { ...NOBODY, part: "decides", reminders: false }])}
          >
            {say("Add a person")}
          </button>
        )}
        <button className="key go" disabled={keep.isPending}>
          {say("Keep them")}
        </button>
      </div>
    </form>
  );
}

const said = (p: Customer): string =>
  [`${p.name}, ${partOf(p)}`, p.phone, p.email].filter(Boolean).join(", ");

export function People({ home }: { home: HomeYears }): ReactElement {
  const [open, setOpen] = useState(false);
  return (
    <p className="text-m flex gap-x-5 gap-y-1 items-center flex-wrap">
      {home.people.map((p) => (
        <span key={p.name + p.email}>{said(p)}</span>
      ))}
      <button className="key bare -ml-2" onClick={() => setOpen(true)}>
        {say("People here")}
      </button>
      {open && (
        <Sheet title={say("People at this home")} width={860} onClose={() => setOpen(false)}>
          <PeopleForm home={home} onClose={() => setOpen(false)} />
        </Sheet>
      )}
    </p>
  );
}
