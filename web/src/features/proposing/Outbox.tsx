/** The outbox: what was mailed, or would have been. */
import { useQuery } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { Link } from "react-router";

import { api, data } from "../../api/client";
import { Head } from "../../app/Shell";
import { Trouble, Waiting } from "../../ui/Trouble";
import { dayAndClock } from "../../app/when";
import { spoken, say } from "../../app/language";

const STATES: Record<string, string> = spoken({
  kept: "kept here",
  waiting: "waits to be sent",
  sending: "is being sent",
  sent: "sent",
  failed: "failed",
});

export function Outbox(): ReactElement {
  const mails = useQuery({ queryKey: ["outbox"], queryFn: () => data(api.GET("/api/outbox")) });
  return (
    <div className="screen plain">
      <Head title={say("Outbox")} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10"
          tabIndex={0}
          role="group"
          aria-label={say("Messages")}
        >
          <div className="max-w-[860px] mx-auto pt-4">
            <h1 className="mb-2">{say("Outbox")}</h1>
            <p className="text-b text-ink-2 mb-4">
              {(mails.data ?? []).some((m) => !m.simulated)
                ? say("What was mailed, and what waits to be sent.")
                : say(
                    "Simulated: a stand-in keeps every message here, and nothing leaves this " +
                      "house.",
                  )}
            </p>
            {mails.isPending && <Waiting what={say("Fetching the messages.")} />}
            <Trouble error={mails.error} again={() => void mails.refetch()} />
            {mails.data?.length === 0 && (
              <p className="text-l">{say("Nothing mailed yet. Open a proposal, then “Share”.")}</p>
            )}
            <ul>
              {(mails.data ?? []).map((m) => (
                <li key={m.id} className="border-b border-rule py-4">
                  <div className="flex gap-3 justify-between flex-wrap">
                    <b>{m.subject}</b>
                    <span className="text-m text-ink-2">{dayAndClock(m.at)}</span>
                  </div>
                  <p className="text-m text-ink-2">
                    {say("to")} {m.to}
                    {say(", by")} {m.by}
                    {m.attachment && say(", with {attachment}", { attachment: m.attachment })}
                    <b className="ml-2">{STATES[m.state]}</b>
                    {m.error !== "" && `: ${m.error}`}
                  </p>
                  <pre className="whitespace-pre-wrap break-words font-t text-b mt-2 mb-0">
                    {m.text}
                  </pre>
                  {m.proposal && (
                    <Link
                      className="inline-flex min-h-11 items-center text-ink font-semibold"
                      to={`/proposals/${m.proposal}`}
                    >
                      {say("The proposal")}
                    </Link>
                  )}
                </li>
              ))}
            </ul>
          </div>
        </div>
      </main>
    </div>
  );
}
