/**
 * A second factor: six digits from a program on one's telephone, codes on paper for when it is
 * lost.
 */
import { useMutation } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { Digits } from "../../ui/Digits";
import { Trouble } from "../../ui/Trouble";
import { Secret } from "./Secret";
import { say } from "../../app/language";

function Codes({ codes }: { codes: string[] }): ReactElement {
  return (
    <div role="status" className="bg-yuzu-pale px-4 py-3">
      <p>
        {say(
          "It is on. Print these and keep them: each opens once, when the telephone is lost. " +
            "They are shown this once.",
        )}
      </p>
      <ul className="grid grid-cols-2 gap-1 num text-l mt-2 select-all">
        {codes.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </div>
  );
}

function Off({ onChanged }: { onChanged: () => void }): ReactElement {
  const [password, setPassword] = useState("");
  const off = useMutation({
    mutationFn: () => data(api.POST("/api/session/second-factor/off", { body: { password } })),
    onSuccess: onChanged,
  });
  return (
    <form
      className="grid gap-3 justify-items-start"
      onSubmit={(e) => {
        e.preventDefault();
        off.mutate();
      }}
    >
      <p>{say("It is on: signing in asks for six digits.")}</p>
      <Secret
        label={say("Your password, to take it off")}
        value={password}
        onChange={setPassword}
        kind="current-password"
      />
      <button className="key" disabled={off.isPending || password === ""}>
        {say("Take it off")}
      </button>
      <Trouble error={off.error} />
    </form>
  );
}

function Begin({ onCodes }: { onCodes: (codes: string[]) => void }): ReactElement {
  const [code, setCode] = useState("");
  const begin = useMutation({ mutationFn: () => data(api.POST("/api/session/second-factor")) });
  const confirm = useMutation({
    mutationFn: () => data(api.PUT("/api/session/second-factor", { body: { code } })),
    onSuccess: (made) => onCodes(made.codes),
  });
  if (!begin.data)
    return (
      <div className="grid gap-3 justify-items-start">
        <p>{say("Off. With it, a password that somebody saw does not open your visits.")}</p>
        <button className="key" disabled={begin.isPending} onClick={() => begin.mutate()}>
          {say("Set it up")}
        </button>
        <Trouble error={begin.error} />
      </div>
    );
  return (
    <form
      className="grid gap-3 justify-items-start"
      onSubmit={(e) => {
        e.preventDefault();
        confirm.mutate();
      }}
    >
      <p>{say("Have the program on your telephone read this, or type the letters into it.")}</p>
      <img
        alt={say("The secret, for the telephone’s camera")}
        className="w-[220px] h-[220px] border border-rule"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(begin.data.picture)}`}
      />
      <p className="num break-all select-all">{begin.data.secret}</p>
      <Digits label={say("The six digits it shows")} value={code} onChange={setCode} />
      <button className="key" disabled={confirm.isPending || code.length < 6}>
        {say("Put it in force")}
      </button>
      <Trouble error={confirm.error} />
    </form>
  );
}

export function SecondFactor({
  on,
  onChanged,
}: {
  on: boolean;
  onChanged: () => void;
}): ReactElement {
  const [codes, setCodes] = useState<string[]>([]);
  return (
    <section aria-labelledby="factor" className="grid gap-3 justify-items-start">
      <h2 id="factor">{say("Second factor")}</h2>
      {codes.length > 0 && <Codes codes={codes} />}
      {on ? (
        <Off
          onChanged={() => {
            setCodes([]);
            onChanged();
          }}
        />
      ) : (
        <Begin
          onCodes={(made) => {
            setCodes(made);
            onChanged();
          }}
        />
      )}
    </section>
  );
}
