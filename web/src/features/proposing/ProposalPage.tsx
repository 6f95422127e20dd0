/** A proposal as it was written: present, print, accept, decline, revise. */
import { useState, type ReactElement } from "react";
import { Link, useParams } from "react-router";

import { useProposal } from "../../api/hooks";
import { message, say, type Language } from "../../app/language";
import { Head } from "../../app/Shell";
import { dayLong } from "../../app/when";
import { LanguageKey, useCustomersLanguage } from "../../ui/LanguageKey";
import { ReasonKey } from "../../ui/ReasonKey";
import { gone, Stale } from "../../ui/Stale";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Changed } from "./Changed";
import { Extend } from "./Extend";
import { MovedOn } from "./MovedOn";
import { Moves } from "./Moves";
import { OfferView } from "./OfferView";
import { Payments } from "./Payments";
import { Seal } from "./Seal";
import { Share } from "./Share";
import { SignedBy } from "./SignedBy";
import { SignForm } from "./SignForm";
import { useCorrect, useDecide, useExtend, type View } from "./useDecide";

const STATE: Record<string, string> = {
  draft: message("Draft: not presented yet"),
  presented: message("Presented"),
  accepted: message("Accepted and signed; it cannot be changed"),
  declined: message("Declined"),
  expired: message("Expired"),
  withdrawn: message("Withdrawn"),
  replaced: message("Replaced by a newer revision"),
  cancelled: message("Cancelled after it was signed"),
  brought_in: message("Brought in from a file: not signed here"),
};

/** Whether something of the recommended line falls due again and again. */
function fallsDue(p: View): boolean {
  const option = p.offer.options.find((o) => o.id === p.offer.recommended);
  return option?.costs.some((c) => c.lines.some((l) => l.interval_months !== null)) ?? false;
}

/** How it stands today, until when, and why. */
function Stands({ p }: { p: View }): ReactElement {
  const open = p.state === "presented" || p.state === "expired";
  return (
    <b role="status" className="font-d text-l basis-full">
      {say(STATE[p.state] ?? p.state)}
      {open && say(", until {until}", { until: dayLong(`${p.until}T12:00:00`) })}
      {open && p.signature && (
        <span className="block text-m font-normal">
          {say("{name} has signed; the second signature is wanted.", { name: p.signature.name })}
        </span>
      )}
      {[p.because, p.terms]
        .filter((x) => x !== "")
        .map((x) => (
          <span key={x} className="block text-m font-normal">
            {x}
          </span>
        ))}
    </b>
  );
}

function SignedAndCorrected({
  p,
  correct,
}: {
  p: View;
  correct: ReturnType<typeof useCorrect>;
}): ReactElement | null {
  if (!p.signature) return null;
  return (
    <>
      <SignedBy
        by={p.signature}
        corrections={p.corrections}
        correct={
          <ReasonKey
            words={say("Note a correction")}
            title={say("Note a correction beside the signature")}
            hint={say("As of a name misspelt. The signature itself stays as it was given.")}
            busy={correct.isPending}
            onReason={correct.mutate}
          />
        }
      />
      {p.second && <SignedBy by={p.second} corrections={[]} correct={null} />}
    </>
  );
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
  const extend = useExtend(p);
  const correct = useCorrect(p);
  const open = p.state === "presented" || p.state === "expired";
  return (
    <main className="scroll px-8 pb-16">
      <div
        className={
          "max-w-[1040px] mx-auto flex flex-wrap items-center gap-3 border-b-[1.5px] border-ink " +
          "py-3 sticky top-0 bg-paper z-10"
        }
      >
        <Stands p={p} />
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
        {open && <Extend until={p.until} busy={extend.isPending} onExtend={extend.mutate} />}
        <Moves p={p} decide={decide} onSign={() => setSigning(true)} />
      </div>
      <Seal standing={p.seal} state={p.state} />
      {p.said !== "" && <p className="max-w-[1040px] mx-auto my-4">{p.said}</p>}
      <Trouble error={decide.error ?? extend.error ?? correct.error} />
      <MovedOn moved={p.moved} visit={p.visit} signed={p.state === "accepted"} />
      {signing && p.state === "presented" && (
        <SignForm
          offer={p.offer}
          busy={decide.isPending}
          onSign={(signed) => decide.mutate({ to: "accepted", signed })}
          onNotNow={() => setSigning(false)}
        />
      )}
      <SignedAndCorrected p={p} correct={correct} />
      <Payments p={p} />
      {sharing && (
        <Share
          proposal={p.id}
          visit={p.visit}
          people={p.people}
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
