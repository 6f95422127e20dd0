/** Share a proposal: a link that expires and can be revoked, mail with it, and the files. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import type { Customer } from "../../api/types";
import { newId } from "../../app/names";
import { Seg } from "../../ui/fields";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { dayLong } from "../../app/when";
import { say } from "../../app/language";
import { languageOf } from "../../ui/LanguageKey";

type LinkLine = components["schemas"]["LinkView"];

/** The address, shown once: as words, as a code for a camera, and as a PDF that carries it. */
function NewLink({
  address,
  picture,
}: {
  address: string;
  picture: string | undefined;
}): ReactElement {
  const [copied, setCopied] = useState(false);
  return (
    <div className="border-[1.5px] border-ink bg-paper p-3 my-3" role="status">
      <p className="text-m mb-1">
        {say("This address is shown once. Whoever has it sees this proposal and nothing else.")}
      </p>
      <p className="break-all font-semibold select-all" data-testid="link">
        {address}
      </p>
      {picture !== undefined && (
        <img
          alt={say("The address, for a telephone’s camera")}
          className="w-[180px] h-[180px] border border-rule mt-2"
          src={`data:image/svg+xml;utf8,${encodeURIComponent(picture)}`}
        />
      )}
      <a
        className="key mt-2 mr-3"
        href={`/api/offered/${address.split("/p/")[1] ?? ""}/pdf`}
        target="_blank"
        rel="noreferrer"
      >
        {say("PDF with this code")}
      </a>
      <button
        className="key mt-2"
        onClick={() => {
          void navigator.clipboard.writeText(address).then(
            () => setCopied(true),
            () => setCopied(false),
          );
        }}
      >
        {copied ? say("Copied") : say("Copy it")}
      </button>
    </div>
  );
}

function LinkRow({ l, onRevoke }: { l: LinkLine; onRevoke: () => void }): ReactElement {
  return (
    <li className="flex gap-3 items-center border-b border-rule min-h-12 text-m">
      <StateMark kind={l.standing === "open" ? "done" : "miss"} size={17} label={l.standing} />
      <span className="flex-1">
        {say("{x}, made {made_at} by {made_by}; {x2}", {
          x: l.standing === "open" ? `open until ${dayLong(l.expires_at)}` : l.standing,
          made_at: dayLong(l.made_at),
          made_by: l.made_by,
          x2:
            l.opened === 0
              ? "not opened yet"
              : `opened ${l.opened === 1 ? "once" : `${l.opened} times`}`,
        })}
      </span>
      {l.standing === "open" && (
        <button className="key bare" onClick={() => onRevoke()}>
          {say("Revoke")}
        </button>
      )}
    </li>
  );
}

function Links({ proposal }: { proposal: string }): ReactElement {
  const client = useQueryClient();
  const [days, setDays] = useState(30);
  const [address, setAddress] = useState("");
  const key = ["proposal", proposal, "links"];
  const links = useQuery({
    queryKey: key,
    queryFn: () =>
      data(api.GET("/api/proposals/{id}/links", { params: { path: { id: proposal } } })),
  });
  const make = useMutation({
    mutationFn: () =>
      data(
        api.POST("/api/proposals/{id}/links", {
          params: { path: { id: proposal } },
          body: { id: newId(), days },
        }),
      ),
    onSuccess: (m) => {
      setAddress(`${window.location.origin}${m.path}`);
      void client.invalidateQueries({ queryKey: key });
    },
  });
  const revoke = useMutation({
    mutationFn: (id: string) => data(api.DELETE("/api/links/{id}", { params: { path: { id } } })),
    onSettled: () => void client.invalidateQueries({ queryKey: key }),
  });
  return (
    <div>
      <h3 className="mb-2">{say("A link to read it")}</h3>
      <div className="flex gap-3 flex-wrap items-end">
        <Seg
          label={say("Ends after")}
          value={days}
          choices={[7, 30, 90].map((d) => ({ value: d, name: say("{d} days", { d }) }))}
          onChange={setDays}
        />
        <button className="key" disabled={make.isPending} onClick={() => make.mutate()}>
          {say("Make a link")}
        </button>
      </div>
      {address !== "" && <NewLink key={address} address={address} picture={make.data?.picture} />}
      <ul className="mt-2">
        {(links.data ?? []).map((l) => (
          <LinkRow key={l.id} l={l} onRevoke={() => revoke.mutate(l.id)} />
        ))}
      </ul>
      <Trouble error={make.error ?? revoke.error ?? links.error} />
    </div>
  );
}

/** Whom at the home a message goes to. */
function Reached({
  people,
  to,
  onChoose,
}: {
  people: Customer[];
  to: string;
  onChoose: (to: string) => void;
}): ReactElement | null {
  if (people.length < 2) return null;
  return (
    <Seg
      label={say("To whom")}
      value={to}
      choices={people.map((p) => ({ value: p.email, name: p.name }))}
      onChange={onChoose}
    />
  );
}

function Mail({ proposal, people }: { proposal: string; people: Customer[] }): ReactElement {
  const client = useQueryClient();
  const [id, setId] = useState(newId);
  const reached = people.filter((p) => p.email !== "");
  const [to, setTo] = useState(reached[0]?.email ?? "");
  const language = languageOf(people.find((p) => p.email === to)?.language);
  const [text, setText] = useState("");
  const send = useMutation({
    mutationFn: () =>
      data(
        api.POST("/api/proposals/{id}/mail", {
          params: { path: { id: proposal } },
          body: { id, to, text, days: 30, language },
        }),
      ),
    onSuccess: () => {
      setId(newId());
      setText("");
      void client.invalidateQueries({ queryKey: ["outbox"] });
      void client.invalidateQueries({ queryKey: ["proposal", proposal, "links"] });
    },
  });
  return (
    <form
      className="grid gap-2 content-start"
      onSubmit={(e) => {
        e.preventDefault();
        send.mutate();
      }}
    >
      <h3>
        {say("Mail it")}{" "}
        <span className="font-normal text-s border border-dashed border-ink px-2">
          {say("see the outbox")}
        </span>
      </h3>
      <Reached people={reached} to={to} onChoose={setTo} />
      <label className="field">
        <span>{say("To")}</span>
        <input
          className="input"
          type="email"
          required
          value={to}
          onChange={(e) => setTo(e.target.value)}
        />
      </label>
      <label className="field">
        <span>{say("A few words")}</span>
        <textarea
          className="input"
          style={{ minHeight: 72 }}
          maxLength={5000}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <div className="flex gap-3 items-center">
        <button className="key" disabled={send.isPending || to.trim() === ""}>
          {say("Mail a link")}
        </button>
        {send.isSuccess && (
          <Link className="text-ink font-semibold" to="/outbox">
            {say("It is in the outbox")}
          </Link>
        )}
      </div>
      <Trouble error={send.error} />
    </form>
  );
}

export function Share({
  proposal,
  visit,
  people,
  draft,
  due,
}: {
  proposal: string;
  visit: string;
  people: Customer[];
  draft: boolean;
  due: boolean;
}): ReactElement {
  return (
    <section
      className={
        "max-w-[1040px] mx-auto border-[1.5px] border-ink bg-slip p-5 my-4 grid " +
        "wide:grid-cols-2 gap-8"
      }
      aria-label={say("Share it")}
    >
      {draft ? (
        <p className="text-l">{say("A draft is not shared. Present it first.")}</p>
      ) : (
        <Links proposal={proposal} />
      )}
      {!draft && <Mail proposal={proposal} people={people} />}
      <div className="col-span-full">
        <h3 className="mb-2">{say("As files")}</h3>
        <div className="flex gap-3 flex-wrap">
          <a
            className="key"
            href={`/api/proposals/${proposal}/pdf`}
            target="_blank"
            rel="noreferrer"
          >
            {say("PDF")}
          </a>
          <a className="key" href={`/api/proposals/${proposal}/costs.csv`} download>
            {say("Costs, CSV")}
          </a>
          <a className="key" href={`/api/visits/${visit}/readings.csv`} download>
            {say("Readings, CSV")}
          </a>
          {due && (
            <a className="key" href={`/api/proposals/${proposal}/calendar.ics`} download>
              {say("Replacements, calendar")}
            </a>
          )}
          <a className="key" href={`/api/visits/${visit}/file`} download>
            {say("The visit, JSON")}
          </a>
        </div>
      </div>
    </section>
  );
}
