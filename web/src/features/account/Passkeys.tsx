/** Passkeys: keys that one's devices hold, and a way to add and remove them. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { KeyRound } from "lucide-react";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { addPasskey, canUsePasskeys } from "../../api/passkeys";
import { dayShort } from "../../app/when";
import { Trouble } from "../../ui/Trouble";
import { Secret } from "./Secret";
import { say } from "../../app/language";

const KEY = ["passkeys"];

function Add(): ReactElement {
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const client = useQueryClient();
  const add = useMutation({
    mutationFn: () => addPasskey(name, password),
    onSuccess: () => {
      setName("");
      setPassword("");
      void client.invalidateQueries({ queryKey: KEY });
    },
  });
  return (
    <form
      className="grid gap-3 justify-items-start"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <label className="field w-[360px] max-w-full">
        <span>{say("What to call this device")}</span>
        <input
          className="input"
          maxLength={100}
          required
          placeholder={say("Tablet in the van")}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <Secret
        label={say("Your password")}
        value={password}
        onChange={setPassword}
        kind="current-password"
      />
      <button className="key" disabled={add.isPending || name.length < 2 || password === ""}>
        <KeyRound size={18} aria-hidden="true" />
        {say("Add a passkey")}
      </button>
      <Trouble error={add.error} />
    </form>
  );
}

function List(): ReactElement | null {
  const client = useQueryClient();
  const keys = useQuery({
    queryKey: KEY,
    queryFn: () => data(api.GET("/api/session/passkeys")),
  });
  const remove = useMutation({
    mutationFn: (id: string) =>
      data(api.DELETE("/api/session/passkeys/{id}", { params: { path: { id } } })),
    onSettled: () => void client.invalidateQueries({ queryKey: KEY }),
  });
  return (
    <>
      <Trouble error={keys.error ?? remove.error} />
      {(keys.data ?? []).length > 0 && (
        <ul className="w-full">
          {(keys.data ?? []).map((k) => (
            <li key={k.id} className="flex gap-4 items-center border-b border-rule min-h-12">
              <span className="flex-1 min-w-0">
                {k.used_at
                  ? say("{name}, added {made}, last used {used}", {
                      name: k.name,
                      made: dayShort(k.made_at),
                      used: dayShort(k.used_at),
                    })
                  : say("{name}, added {made}, not used yet", {
                      name: k.name,
                      made: dayShort(k.made_at),
                    })}
              </span>
              <button
                className="key bare"
                aria-label={say("Remove {name}", { name: k.name })}
                onClick={() => remove.mutate(k.id)}
              >
                {say("Remove")}
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

export function Passkeys(): ReactElement {
  return (
    <section aria-labelledby="passkeys" className="grid gap-3 justify-items-start">
      <h2 id="passkeys">{say("Passkeys")}</h2>
      <p>
        {say(
          "Sign in with your finger, face or PIN instead of the password and the six digits. " +
            "The key stays on your device.",
        )}
      </p>
      <List />
      {canUsePasskeys() ? (
        <Add />
      ) : (
        <p className="text-ink-2">
          {say(
            "Here none can be added: passkeys want this page under a name of its own, over " +
              "HTTPS.",
          )}
        </p>
      )}
    </section>
  );
}
