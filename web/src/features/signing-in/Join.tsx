/** Choose a password with a code that a manager gave. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useParams } from "react-router";

import { api, data } from "../../api/client";
import { Head } from "../../app/Shell";
import { Secret } from "../account/Secret";
import { Trouble, Waiting } from "../../ui/Trouble";
import { say } from "../../app/language";

function AskForCode({ onCode }: { onCode: (code: string) => void }): ReactElement {
  const [code, setCode] = useState("");
  return (
    <form
      className="grid gap-4 justify-items-start"
      onSubmit={(e) => {
        e.preventDefault();
        onCode(code);
      }}
    >
      <label className="field w-full">
        <span>{say("The code you were given")}</span>
        <input
          className="input num"
          maxLength={60}
          value={code}
          onChange={(e) => setCode(e.target.value)}
        />
        <small>{say("as in ABCDE-FGHJK-MNPQR-STVWX")}</small>
      </label>
      <button className="key go" disabled={code.trim().length < 8}>
        {say("Go on")}
      </button>
    </form>
  );
}

function Choose({ code, onAnother }: { code: string; onAnother: () => void }): ReactElement {
  const [password, setPassword] = useState("");
  const who = useQuery({
    queryKey: ["join", code],
    retry: false,
    staleTime: Infinity,
    queryFn: () => data(api.POST("/api/join/look", { body: { code } })),
  });
  const join = useMutation({
    mutationFn: () => data(api.POST("/api/join", { body: { code, name: "", password } })),
  });
  if (who.isPending) return <Waiting what={say("Looking for your invitation.")} />;
  if (!who.data)
    return (
      <div className="grid gap-3 justify-items-start">
        <p className="text-l">
          {say("This code opens nothing: it was used, is over, or was taken back.")}
        </p>
        <button className="key" onClick={onAnother}>
          {say("Type another")}
        </button>
      </div>
    );
  if (join.isSuccess)
    return (
      <div className="grid gap-4 justify-items-start" role="status">
        <p className="text-l">{say("Your password is chosen.")}</p>
        <Link className="key go" to="/sign-in">
          {say("Sign in")}
        </Link>
      </div>
    );
  return (
    <form
      className="grid gap-4 justify-items-start"
      onSubmit={(e) => {
        e.preventDefault();
        join.mutate();
      }}
    >
      <p className="text-l">
        {who.data.name}, {who.data.email},{" "}
        {who.data.for_a_new_password
          ? say("choose a new password")
          : say("you are invited to {firm}", { firm: who.data.firm })}
        .
      </p>
      <Secret
        label={say("Your password, at least 10 characters")}
        value={password}
        onChange={setPassword}
        kind="new-password"
      />
      <button className="key go" disabled={join.isPending || password.length < 10}>
        {say("Choose it")}
      </button>
      <Trouble error={join.error} />
    </form>
  );
}

export function Join(): ReactElement {
  const given = useParams().code ?? "";
  const [code, setCode] = useState(given);
  return (
    <div className="screen plain">
      <Head outside title={say("Join your firm")} />
      <main className="px-8 scroll flex justify-center">
        <div className="w-[460px] max-w-full py-10 grid gap-5 content-start">
          <h1>{say("Choose your password")}</h1>
          {code === "" ? (
            <AskForCode onCode={setCode} />
          ) : (
            <Choose code={code} onAnother={() => setCode("")} />
          )}
        </div>
      </main>
    </div>
  );
}
