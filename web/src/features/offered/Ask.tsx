/** A question to the firm, or the wish for a visit, by whoever holds the link. */
import { useMutation } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { newId } from "../../app/names";
import { Seg } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

type About = "question" | "visit";

export function Ask({ token, firm }: { token: string; firm: string }): ReactElement {
  const [id, setId] = useState(newId);
  const [about, setAbout] = useState<About>("question");
  const [text, setText] = useState("");
  const send = useMutation({
    mutationFn: () =>
      data(
        api.POST("/api/offered/{token}/ask", {
          params: { path: { token } },
          body: { id, about, text },
        }),
      ),
    onSuccess: () => {
      setId(newId());
      setText("");
    },
  });
  return (
    <section
      className="max-w-[1040px] mx-auto my-8 border-t-[1.5px] border-ink pt-4"
      aria-labelledby="ask"
    >
      <h2 id="ask" className="mb-3">
        {say("Ask {firm}", { firm })}
      </h2>
      <form
        className="grid gap-3 justify-items-start"
        onSubmit={(e) => {
          e.preventDefault();
          send.mutate();
        }}
      >
        <Seg<About>
          label={say("What it is about")}
          hideLabel
          value={about}
          choices={[
            { value: "question", name: say("A question") },
            { value: "visit", name: say("A visit") },
          ]}
          onChange={setAbout}
        />
        <label className="field w-full max-w-[640px]">
          <span>
            {about === "visit"
              ? say("When may somebody come, and what for?")
              : say("Your question")}
          </span>
          <textarea
            className="input"
            style={{ minHeight: 110, paddingTop: 10 }}
            maxLength={2000}
            required
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <button className="key" disabled={send.isPending || text.trim().length < 3}>
          {say("Send it")}
        </button>
        <Trouble error={send.error} />
        {send.isSuccess && text === "" && (
          <p role="status">{say("It is with {firm}. They will answer.", { firm })}</p>
        )}
      </form>
    </section>
  );
}
