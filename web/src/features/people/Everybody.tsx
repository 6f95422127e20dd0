/** Everybody of the firm with their role, who is invited, and a way in for somebody new. */
import { useState, type ReactElement } from "react";

import { useMe } from "../../api/hooks";
import { Seg } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Code } from "./Code";
import {
  ROLES,
  useChangePerson,
  useInvite,
  useLetIn,
  useNewPassword,
  usePeople,
  useRevokeInvitation,
  useTakeOut,
  type Invited,
  type People,
  type PersonView,
  type Role,
} from "./hooks";
import { dayShort } from "../../app/when";
import { say, spoken } from "../../app/language";

const CHOICES = ROLES.map(([value, name]) => ({ value, name }));
const ASKED = spoken([
  ["name", "Name", "text"],
  ["email", "E-mail", "email"],
] as const);
const EMPTY = { email: "", name: "", role: "consultant" as Role };

function Shown({ made, name, mail }: { made: Invited; name: string; mail: boolean }): ReactElement {
  if (made.code === "")
    return (
      <p role="status" className="bg-yuzu-pale px-4 py-3">
        {mail
          ? say("A message to {name} is on its way.", { name })
          : say("This was made already; its code was shown then.")}
      </p>
    );
  return (
    <Code
      code={made.code}
      address={`${window.location.origin}${made.path}`}
      what={say(
        "Tell or print this for {name}. With it they choose a password, at the address below.",
        { name },
      )}
    />
  );
}

function Invite({ mail }: { mail: boolean }): ReactElement {
  const invite = useInvite();
  const [asked, setAsked] = useState(EMPTY);
  const [told, setTold] = useState("");
  const send = (by_mail: boolean): void =>
    invite.mutate(
      { ...asked, by_mail },
      {
        onSuccess: () => {
          setTold(asked.name);
          setAsked(EMPTY);
        },
      },
    );
  const ready = asked.email.includes("@") && asked.name.trim().length > 1;
  return (
    <section aria-labelledby="invite" className="border-t border-rule pt-3">
      <h2 id="invite">{say("Invite somebody")}</h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] gap-4 items-start my-3">
        {ASKED.map(([key, label, type]) => (
          <label key={key} className="field">
            <span>{label}</span>
            <input
              className="input"
              type={type}
              maxLength={200}
              value={asked[key]}
              onChange={(e) => setAsked({ ...asked, [key]: e.target.value })}
            />
          </label>
        ))}
        <Seg<Role>
          label={say("Role")}
          value={asked.role}
          choices={CHOICES}
          onChange={(role) => setAsked({ ...asked, role })}
        />
      </div>
      <div className="flex gap-3 flex-wrap">
        <button className="key" disabled={!ready || invite.isPending} onClick={() => send(false)}>
          {say("Make a code to print or tell")}
        </button>
        {mail && (
          <button className="key" disabled={!ready || invite.isPending} onClick={() => send(true)}>
            {say("Send it by mail")}
          </button>
        )}
      </div>
      <Trouble error={invite.error} />
      {invite.data && <Shown made={invite.data} name={told} mail={mail} />}
    </section>
  );
}

function OutForm({
  person,
  others,
  onDone,
}: {
  person: PersonView;
  others: PersonView[];
  onDone: () => void;
}): ReactElement {
  const out = useTakeOut();
  const [to, setTo] = useState("");
  return (
    <div
      className="slip p-4 grid gap-3 justify-items-start"
      style={{ borderBottom: "1.5px solid var(--ink)" }}
    >
      <p>
        {say(
          "All that is open of {name} ends at once. Their visits go to another; what they " +
            "wrote stays under their name.",
          { name: person.name },
        )}
      </p>
      <label className="field">
        <span>{say("Who takes on their visits")}</span>
        <select className="input" value={to} onChange={(e) => setTo(e.target.value)}>
          <option value="">{say("nobody: they have none")}</option>
          {others.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}
            </option>
          ))}
        </select>
      </label>
      <div className="flex gap-3">
        <button
          className="key"
          disabled={out.isPending}
          onClick={() => out.mutate({ person, to: to || null }, { onSuccess: onDone })}
        >
          {say("Take {name} out", { name: person.name })}
        </button>
        <button className="key bare" onClick={onDone}>
          {say("Leave it")}
        </button>
      </div>
      <Trouble error={out.error} />
    </div>
  );
}

function Row({
  person,
  all,
  mail,
}: {
  person: PersonView;
  all: People;
  mail: boolean;
}): ReactElement {
  const me = useMe();
  const change = useChangePerson();
  const letIn = useLetIn();
  const reset = useNewPassword();
  const [leaving, setLeaving] = useState(false);
  const mine = me.data?.id === person.id;
  const others = all.people.filter((p) => p.active && p.id !== person.id && p.role !== "installer");
  return (
    <li className="border-b border-rule py-3 grid gap-2" data-person={person.email}>
      <div
        className={
          "grid grid-cols-[minmax(200px,1fr)_280px_240px] gap-4 items-center " +
          "max-[900px]:grid-cols-1"
        }
      >
        <div className="min-w-0">
          <b>{person.name}</b>
          {mine && <span className="text-s bg-yuzu-pale px-2 ml-2">{say("you")}</span>}
          {!person.active && (
            <span className="text-s border border-ink px-2 ml-2">{say("taken out")}</span>
          )}
          <span className="block text-m text-ink-2">
            {say("{email}, {x} a second factor", {
              email: person.email,
              x: person.second_factor ? "with" : "without",
            })}
          </span>
        </div>
        <Seg<Role>
          label={say("Role of {name}", { name: person.name })}
          hideLabel
          value={person.role}
          choices={CHOICES}
          onChange={(role) => change.mutate({ ...person, role })}
        />
        <div className="flex gap-2 flex-wrap">
          {person.active ? (
            <>
              <button
                className="key bare"
                disabled={reset.isPending}
                onClick={() => reset.mutate({ id: person.id, by_mail: mail })}
              >
                {say("New password")}
              </button>
              {!mine && (
                <button className="key bare" onClick={() => setLeaving(true)}>
                  {say("Take out")}
                </button>
              )}
            </>
          ) : (
            <button className="key bare" onClick={() => letIn.mutate(person)}>
              {say("Let in again")}
            </button>
          )}
        </div>
      </div>
      <Trouble error={change.error ?? letIn.error ?? reset.error} />
      {reset.data && <Shown made={reset.data} name={person.name} mail={mail} />}
      {leaving && <OutForm person={person} others={others} onDone={() => setLeaving(false)} />}
    </li>
  );
}

function Open({ all }: { all: People }): ReactElement | null {
  const revoke = useRevokeInvitation();
  if (all.invitations.length === 0) return null;
  return (
    <section aria-labelledby="invited">
      <h2 id="invited">{say("Invited, not here yet")}</h2>
      <Trouble error={revoke.error} />
      <ul>
        {all.invitations.map((x) => (
          <li key={x.id} className="border-b border-rule py-2 flex gap-4 items-center flex-wrap">
            <span className="flex-1 min-w-[220px]">
              <b>{x.name}</b>, {x.email}
              <span className="block text-m text-ink-2">
                {say("{x}, by {made_by}, until {expires_at}", {
                  x: x.for_a_new_password
                    ? "a new password"
                    : ROLES.find(([r]) => r === x.role)?.[1],
                  made_by: x.made_by,
                  expires_at: dayShort(x.expires_at),
                })}
              </span>
            </span>
            <button className="key bare" onClick={() => revoke.mutate(x.id)}>
              {say("Take it back")}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Everybody(): ReactElement {
  const people = usePeople();
  if (people.isPending) return <Waiting what={say("Fetching the firm’s people.")} />;
  if (!people.data) return <Trouble error={people.error} again={() => void people.refetch()} />;
  return (
    <>
      <ul>
        {people.data.people.map((p) => (
          <Row key={p.id} person={p} all={people.data} mail={people.data.mail} />
        ))}
      </ul>
      <Open all={people.data} />
      <Invite mail={people.data.mail} />
    </>
  );
}
