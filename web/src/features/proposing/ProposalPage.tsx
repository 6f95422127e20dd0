/** A proposal as it was written: present, print, accept, decline, revise. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useParams } from "react-router";

import { api, data } from "../../api/client";
import { useProposal } from "../../api/hooks";
import { Head } from "../../app/Shell";
import { gone, Stale } from "../../ui/Stale";
import { Trouble, Waiting } from "../../ui/Trouble";
import { OpenJob } from "../aftercare/OpenJob";
import { Changed } from "./Changed";
import { OfferView } from "./OfferView";
import { Seal } from "./Seal";
import { Share } from "./Share";
import { SignedBy } from "./SignedBy";
import { SignForm, type Signed } from "./SignForm";
import { message, say, type Language } from "../../app/language";
import { LanguageKey, useCustomersLanguage } from "../../ui/LanguageKey";

const STATE: Record<string, string> = {
  draft: message("Draft: not presented yet"),
  presented: message("Presented"),
  accepted: message("Accepted and signed; it cannot be changed"),
  declined: message("Declined"),
  expired: message("Expired"),
  brought_in: message("Brought in from a file: not signed here"),
};

type View = NonNullable<ReturnType<typeof useProposal>["data"]>;
type To = "presented" | "accepted" | "declined";
interface Move {
  to: To;
  signed?: Signed;
}
const UNSIGNED: Signed = { name: "", path: "", typed: false, read: [] };
const INKED = { background: "var(--ink)", color: "var(--paper)" };

function useDecide(p: View, language: Language, then: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ to, signed }: Move) =>
      data(
        api.POST("/api/proposals/{id}/{to}", {
          params: { path: { id: p.id, to } },
          body: { version: p.version, language, ...(signed ?? UNSIGNED) },
        }),
      ),
    onSuccess: (next) => {
      void client.invalidateQueries({ queryKey: ["proposal", next.id] });
      void client.invalidateQueries({ queryKey: ["visit", next.visit] });
      then();
    },
  });
}

type Decide = ReturnType<typeof useDecide>;

/** What may be done with it, by how it stands. */
function Moves({
  p,
  decide,
  onSign,
}: {
  p: View;
  decide: Decide;
  onSign: () => void;
}): ReactElement {
  const revisable = p.state !== "draft" && p.state !== "brought_in" && p.latest;
  return (
    <>
      {p.state === "draft" && (
        <button
          className="key"
          style={INKED}
          disabled={decide.isPending}
          onClick={() => decide.mutate({ to: "presented" })}
        >
          {say("Present it")}
        </button>
      )}
      {p.state === "presented" && (
        <>
          <button
            className="key"
            disabled={decide.isPending}
            onClick={() => decide.mutate({ to: "declined" })}
          >
            {say("Declined")}
          </button>
          <button className="key" style={INKED} onClick={onSign}>
            {say("Accept and sign")}
          </button>
        </>
      )}
      {p.state === "accepted" && p.offer.recommended !== "today" && <OpenJob proposal={p.id} />}
      {revisable && (
        <Link className="key" to={`/visits/${p.visit}/offer`}>
          {say("Revise")}
        </Link>
      )}
    </>
  );
}

/** Whether something of the recommended line falls due again and again. */
function fallsDue(p: View): boolean {
  const option = p.offer.options.find((o) => o.id === p.offer.recommended);
  return option?.costs.some((c) => c.lines.some((l) => l.interval_months !== null)) ?? false;
}

function Body({
  p,
  language,
  onLanguage,
}: {
  p: View;
  language: Language;
  onLanguage: (next: Language) => void;
}): ReactElement {
  const [sharing, setSharing] = useState(false);
  const [signing, setSigning] = useState(false);
  const decide = useDecide(p, language, () => setSigning(false));
  return (
    <main className="scroll px-8 pb-16">
      <div
        className={
          "max-w-[1040px] mx-auto flex flex-wrap items-center gap-3 border-b-[1.5px] border-ink " +
          "py-3 sticky top-0 bg-paper z-10"
        }
      >
        <b role="status" className="font-d text-l flex-1">
          {say(STATE[p.state] ?? p.state)}
        </b>
        <LanguageKey language={language} onChoose={onLanguage} />
        <a
          className="key"
          href={`/api/proposals/${p.id}/pdf?language=${language}`}
          target="_blank"
          rel="noreferrer"
        >
          {say("PDF")}
        </a>
        {p.offer.recommended !== "today" && (
          <Link className="key" to={`/visits/${p.visit}/steps/${p.offer.recommended}`}>
            {say("Its steps")}
          </Link>
        )}
        <button className="key" aria-expanded={sharing} onClick={() => setSharing(!sharing)}>
          {say("Share")}
        </button>
        <Moves p={p} decide={decide} onSign={() => setSigning(true)} />
      </div>
      <Seal standing={p.seal} state={p.state} />
      {p.said !== "" && <p className="max-w-[1040px] mx-auto my-4">{p.said}</p>}
      <Trouble error={decide.error} />
      {signing && p.state === "presented" && (
        <SignForm
          offer={p.offer}
          busy={decide.isPending}
          onSign={(signed) => decide.mutate({ to: "accepted", signed })}
          onNotNow={() => setSigning(false)}
        />
      )}
      {p.signature && <SignedBy by={p.signature} />}
      {sharing && (
        <Share
          proposal={p.id}
          visit={p.visit}
          to={p.offer.customer.email}
          draft={p.state === "draft"}
          due={fallsDue(p)}
        />
      )}
      <Changed lines={p.changed} />
      <OfferView offer={p.offer} />
    </main>
  );
}

export function ProposalPage(): ReactElement {
  const { id = "" } = useParams();
  const [language, choose] = useCustomersLanguage(id);
  const proposal = useProposal(id, language);
  const p = proposal.data;
  const lost = gone(proposal);
  if (lost)
    return (
      <div className="p-8">
        <Trouble error={lost} again={() => void proposal.refetch()} />
      </div>
    );
  if (!p) return <Waiting what={say("Opening the proposal.")} />;
  return (
    <div className="screen plain">
      <Stale read={proposal} />
      <Head
        title={say("Proposal {number}", { number: p.offer.number })}
        sub={say("revision {revision}", { revision: p.offer.revision })}
      >
        <Link className="key" to={`/visits/${p.visit}/offer`}>
          {say("Back to the visit")}
        </Link>
      </Head>
      <Body p={p} language={language} onLanguage={choose} />
    </div>
  );
}
