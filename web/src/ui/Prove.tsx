/** The password again, where prices, limits and people ask for it. */
import { useMutation } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data, problemOf } from "../api/client";
import { say } from "../app/language";

export function Prove({ again }: { again?: () => void }): ReactElement {
  const [password, setPassword] = useState("");
  const prove = useMutation({
    mutationFn: () => data(api.POST("/api/session/prove", { body: { password } })),
    onSuccess: () => {
      setPassword("");
      again?.();
    },
  });
  if (prove.isSuccess) return <p role="status">{say("Thank you. Do it once more.")}</p>;
  const ask = (): void => {
    if (password !== "") prove.mutate();
  };
  return (
    <div className="flex gap-3 items-end flex-wrap">
      <label className="field">
        <span>{say("Your password")}</span>
        <input
          className="input"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault(); // it may stand inside a form of something else
            ask();
          }}
        />
      </label>
      <button type="button" className="key" disabled={prove.isPending} onClick={ask}>
        {say("Go on")}
      </button>
      {prove.isError && <p role="alert">{problemOf(prove.error)?.title}</p>}
    </div>
  );
}
