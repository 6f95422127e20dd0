/** Ask for a new password by mail: the answer is the same whoever the address is. */
import { useMutation } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { api, data } from "../../api/client";
import { Head } from "../../app/Shell";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

export function Forgotten(): ReactElement {
  const [email, setEmail] = useState("");
  const ask = useMutation({
    mutationFn: () => data(api.POST("/api/session/forgotten", { body: { email } })),
  });
  return (
    <div className="screen plain">
      <Head outside title={say("A new password")} />
      <main className="px-8 scroll flex justify-center">
        <form
          className="w-[460px] max-w-full py-10 grid gap-5 content-start justify-items-start"
          onSubmit={(e) => {
            e.preventDefault();
            ask.mutate();
          }}
        >
          <h1>{say("Forgot your password?")}</h1>
          {ask.isSuccess ? (
            <p className="text-l" role="status">
              {say(
                "If {email} signs in here, a message is on its way to it. The old password " +
                  "works until you choose the new one.",
                { email },
              )}
            </p>
          ) : (
            <>
              <label className="field w-full">
                <span>{say("The e-mail you sign in with")}</span>
                <input
                  className="input"
                  type="email"
                  autoComplete="username"
                  required
                  maxLength={300}
                  value={email}
                  onChange={(e) => setEmail(e.target.value)}
                />
              </label>
              <button className="key go" disabled={ask.isPending || email.trim() === ""}>
                {say("Send me a link")}
              </button>
              <Trouble error={ask.error} />
            </>
          )}
          <Link className="key bare" to="/sign-in">
            {say("Back to signing in")}
          </Link>
        </form>
      </main>
    </div>
  );
}
