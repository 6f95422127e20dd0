/** Sign in: two fields on the counter. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useLocation, useNavigate } from "react-router";

import { api, data, problemOf, setToken } from "../../api/client";
import { canUsePasskeys, enterByPasskey } from "../../api/passkeys";
import { Head, Ledge } from "../../app/Shell";
import { Glass } from "../../glass/Glass";
import { EMPTY, type Look } from "../../glass/look";
import { Digits } from "../../ui/Digits";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

const POURED: Look = {
  ...EMPTY,
  hard: [180, 220],
  ring: 0.9,
  tds: [400, 424],
  unseen: 0,
  tests: EMPTY.tests.map((t) => ({ ...t, done: true })),
};
const SOFT: Look = { ...POURED, hard: [0, 15], ring: 0, tds: [22, 30] };
const TEA: Look = { ...POURED, hard: [20, 40], tannin: 1.4, ring: 0, tds: [40, 48] };

function ThreeGlasses(): ReactElement {
  return (
    <Ledge>
      <div className="flex mx-auto" aria-hidden="true">
        {[TEA, POURED, SOFT].map((l, i) => (
          <div key={i} className="stand">
            <Glass look={l} h={112} label={say("A glass of water")} />
          </div>
        ))}
      </div>
    </Ledge>
  );
}

function OtherWays(): ReactElement {
  return (
    <div className="flex gap-5 flex-wrap">
      <Link className="key bare" to="/forgotten">
        {say("Forgot it?")}
      </Link>
      <Link className="key bare" to="/join">
        {say("I have a code from my manager")}
      </Link>
    </div>
  );
}

function ByPasskey({ busy, onUse }: { busy: boolean; onUse: () => void }): ReactElement {
  return (
    <button type="button" className="key" disabled={busy} onClick={onUse}>
      {say("Use a passkey")}
    </button>
  );
}

export function SignIn(): ReactElement {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const navigate = useNavigate();
  const place = useLocation();
  const client = useQueryClient();
  const enter = useMutation({
    mutationFn: (by: "password" | "passkey") =>
      by === "passkey"
        ? enterByPasskey()
        : data(api.POST("/api/session", { body: { email, password, code } })),
    onSuccess: (me) => {
      setToken(me.token);
      client.clear();
      client.setQueryData(["me"], me);
      const from = (place.state as { from?: string } | null)?.from;
      void navigate(from ?? "/", { replace: true });
    },
  });
  const wantsCode = problemOf(enter.error)?.code === "session.code" || code !== "";
  return (
    <div className="screen">
      <Head outside title={say("A glass of water, read out loud")} />
      <main className="px-8 scroll flex justify-center">
        <form
          className="grid gap-5 content-center w-[400px] py-6"
          onSubmit={(e) => {
            e.preventDefault();
            enter.mutate("password");
          }}
        >
          <h1>{say("Sign in")}</h1>
          <label className="field">
            <span>{say("E-mail")}</span>
            <input
              className="input"
              type="email"
              autoComplete="username"
              required
              value={email}
              onChange={(e) => setEmail(e.target.value)}
            />
          </label>
          <label className="field">
            <span>{say("Password")}</span>
            <input
              className="input"
              type="password"
              autoComplete="current-password"
              required
              value={password}
              onChange={(e) => setPassword(e.target.value)}
            />
          </label>
          {wantsCode && (
            <Digits
              label={say("The six digits on your telephone, or a code from paper")}
              value={code}
              onChange={setCode}
            />
          )}
          <Trouble error={enter.error} />
          <button className="key go" disabled={enter.isPending}>
            {enter.isPending ? say("Signing in") : say("Sign in")}
          </button>
          {canUsePasskeys() && (
            <ByPasskey busy={enter.isPending} onUse={() => enter.mutate("passkey")} />
          )}
          <OtherWays />
        </form>
      </main>
      <ThreeGlasses />
    </div>
  );
}
