/** Tokens by which scripts use the interface: for some of it only, ending, revocable. */
import { useState, type ReactElement } from "react";

import { NumberField, TextField } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Code } from "./Code";
import { useMakeToken, useRevokeToken, useTokens, type TokenView } from "./hooks";
import { dayShort } from "../../app/when";
import { spoken, say } from "../../app/language";

type Scope = TokenView["scopes"][number];
const SCOPES: [Scope, string][] = spoken([
  ["read", "read kits, limits, catalog, figures"],
  ["personal", "read customers, visits, proposals, jobs"],
  ["readings", "add glasses and readings"],
  ["proposals", "start visits, make systems and proposals"],
  ["catalogue", "bring the catalog in"],
]);

function standing(t: TokenView): string {
  if (t.revoked_at != null)
    return say("revoked {revoked_at}", { revoked_at: dayShort(t.revoked_at) });
  const used =
    t.used_at == null
      ? say("never used")
      : say("last used {used_at}", { used_at: dayShort(t.used_at) });
  return say("until {expires_at}, {used}", { expires_at: dayShort(t.expires_at), used });
}

function Make(): ReactElement {
  const make = useMakeToken();
  const [name, setName] = useState("");
  const [days, setDays] = useState(90);
  const [scopes, setScopes] = useState<Scope[]>(["read"]);
  const toggle = (s: Scope): void =>
    setScopes(scopes.includes(s) ? scopes.filter((x) => x !== s) : [...scopes, s]);
  return (
    <section aria-labelledby="make-token" className="border-t border-rule pt-3">
      <h2 id="make-token">{say("Make a token")}</h2>
      <div className="grid grid-cols-[minmax(220px,1fr)_160px] gap-4 my-3">
        <TextField label={say("What it is for")} value={name} onCommit={setName} />
        <NumberField
          label={say("It ends after")}
          unit="days"
          min={1}
          max={366}
          value={days}
          onCommit={(n) => setDays(n ?? 90)}
        />
      </div>
      <div className="flex gap-2 flex-wrap mb-3" role="group" aria-label={say("It may")}>
        {SCOPES.map(([s, words]) => (
          <button
            key={s}
            className="key"
            aria-pressed={scopes.includes(s)}
            style={
              scopes.includes(s)
                ? { background: "var(--yuzu)", color: "var(--on-yuzu)" }
                : undefined
            }
            onClick={() => toggle(s)}
          >
            {words}
          </button>
        ))}
      </div>
      <button
        className="key"
        disabled={name.trim().length < 2 || scopes.length === 0 || make.isPending}
        onClick={() => make.mutate({ name, scopes, days })}
      >
        {say("Make it")}
      </button>
      <Trouble error={make.error} />
      {make.data && (
        <Code
          code={make.data.token}
          what={say(
            "For the script, as “Authorization: Bearer …”. docs/scripts.md has an example.",
          )}
        />
      )}
    </section>
  );
}

export function Scripts(): ReactElement {
  const tokens = useTokens();
  const revoke = useRevokeToken();
  if (tokens.isPending) return <Waiting what={say("Fetching the tokens.")} />;
  return (
    <>
      <Trouble error={tokens.error ?? revoke.error} />
      {tokens.data?.length === 0 && <p className="text-l">{say("No token yet.")}</p>}
      <ul>
        {(tokens.data ?? []).map((t) => (
          <li key={t.id} className="border-b border-rule py-2 flex gap-4 items-center flex-wrap">
            <span className="flex-1 min-w-[220px]">
              <b>{t.name}</b>
              <span className="block text-m text-ink-2">
                {t.scopes.map((s) => SCOPES.find(([x]) => x === s)?.[1]).join(", ")}; {standing(t)}
              </span>
            </span>
            {t.revoked_at == null && (
              <button className="key bare" onClick={() => revoke.mutate(t.id)}>
                {say("Revoke")}
              </button>
            )}
          </li>
        ))}
      </ul>
      <Make />
    </>
  );
}
