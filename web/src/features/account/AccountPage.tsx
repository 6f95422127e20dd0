/** One's own account: password, second factor, and where one is signed in. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useMe } from "../../api/hooks";
import { Head } from "../../app/Shell";
import { Trouble } from "../../ui/Trouble";
import { Calendars } from "./Calendars";
import { Passkeys } from "./Passkeys";
import { Secret } from "./Secret";
import { SecondFactor } from "./SecondFactor";
import { Sessions } from "./Sessions";
import { say } from "../../app/language";

function NewPassword(): ReactElement {
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const change = useMutation({
    mutationFn: () => data(api.POST("/api/session/password", { body: { old, new: fresh } })),
    onSuccess: () => {
      setOld("");
      setFresh("");
    },
  });
  return (
    <form
      className="grid gap-3 justify-items-start"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate();
      }}
    >
      <h2>{say("Password")}</h2>
      <Secret
        label={say("The one you have")}
        value={old}
        onChange={setOld}
        kind="current-password"
      />
      <Secret
        label={say("A new one, at least 10 characters")}
        value={fresh}
        onChange={setFresh}
        kind="new-password"
      />
      <button className="key" disabled={change.isPending || old === "" || fresh.length < 10}>
        {say("Change it")}
      </button>
      <Trouble error={change.error} />
      {change.isSuccess && (
        <p role="status">{say("Changed. Everywhere else you are signed out.")}</p>
      )}
    </form>
  );
}

export function AccountPage(): ReactElement {
  const me = useMe();
  const client = useQueryClient();
  return (
    <div className="screen plain">
      <Head title={me.data?.name ?? say("Account")} {...(me.data ? { sub: me.data.firm } : {})} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10"
          tabIndex={0}
          role="group"
          aria-label={say("Account")}
        >
          <div className="max-w-[760px] mx-auto pt-4 grid gap-8 [&>*]:min-w-0">
            <h1>{say("Your account")}</h1>
            <NewPassword />
            {me.data && (
              <SecondFactor
                on={me.data.second_factor}
                onChanged={() => void client.invalidateQueries({ queryKey: ["me"] })}
              />
            )}
            <Passkeys />
            <Sessions />
            <Calendars />
            <p className="text-m">
              <a className="underline" href="/licenses.txt" target="_blank" rel="noreferrer">
                {say("Licenses of the parts that this page is made of")}
              </a>
            </p>
          </div>
        </div>
      </main>
    </div>
  );
}
