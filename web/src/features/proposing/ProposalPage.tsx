/** A proposal as it was written: present, print, accept, decline, revise. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useParams } from "react-router";

import { api, data } from "../../api/client";
import { useProposal } from "../../api/hooks";
import { Head } from "../../app/Shell";
import { Trouble, Waiting } from "../../ui/Trouble";
import { OfferView } from "./OfferView";
import { Share } from "./Share";
import { OpenJob } from "../aftercare/OpenJob";
import { SignaturePad } from "./SignaturePad";
import { Seal } from "./Seal";

const STATE: Record<string, string> = {
  draft: "Draft: not presented yet",
  presented: "Presented",
  accepted: "Accepted and signed; it cannot be changed",
  declined: "Declined",
  expired: "Expired",
  brought_in: "Brought in from a file: not signed here",
};

export function ProposalPage(): ReactElement {
  const { id = "" } = useParams();
  const proposal = useProposal(id);
  const client = useQueryClient();
  const [sharing, setSharing] = useState(false);
  const [signing, setSigning] = useState(false);
  const [name, setName] = useState("");
  const [path, setPath] = useState("");
  const [read, setRead] = useState<string[]>([]);
  const p = proposal.data;
  const decide = useMutation({
    mutationFn: (to: "presented" | "accepted" | "declined") =>
      data(
        api.POST("/api/proposals/{id}/{to}", {
          params: { path: { id, to } },
          body: { version: p?.version ?? 0, name, path, read },
        }),
      ),
    onSuccess: (next) => {
      client.setQueryData(["proposal", id], next);
      void client.invalidateQueries({ queryKey: ["visit", next.visit] });
      setSigning(false);
    },
  });
  if (proposal.isError)
    return (
      <div className="p-8">
        <Trouble error={proposal.error} again={() => void proposal.refetch()} />
      </div>
    );
  if (!p) return <Waiting what="Opening the proposal." />;
  return (
    <div className="screen plain">
      <Head title={`Proposal ${p.offer.number}`} sub={`revision ${p.offer.revision}`}>
        <Link className="key" to={`/visits/${p.visit}/offer`}>
          Back to the visit
        </Link>
      </Head>
      <main className="scroll px-8 pb-16">
        <div className="max-w-[1040px] mx-auto flex flex-wrap items-center gap-3 border-b-[1.5px] border-ink py-3 sticky top-0 bg-paper z-10">
          <b role="status" className="font-d text-l flex-1">
            {STATE[p.state]}
          </b>
          <a className="key" href={`/api/proposals/${id}/pdf`} target="_blank" rel="noreferrer">
            PDF
          </a>
          <button className="key" aria-expanded={sharing} onClick={() => setSharing(!sharing)}>
            Share
          </button>
          {p.state === "draft" && (
            <button
              className="key"
              style={{ background: "var(--ink)", color: "var(--paper)" }}
              disabled={decide.isPending}
              onClick={() => decide.mutate("presented")}
            >
              Present it
            </button>
          )}
          {p.state === "presented" && (
            <>
              <button
                className="key"
                disabled={decide.isPending}
                onClick={() => decide.mutate("declined")}
              >
                Declined
              </button>
              <button
                className="key"
                style={{ background: "var(--ink)", color: "var(--paper)" }}
                onClick={() => setSigning(true)}
              >
                Accept and sign
              </button>
            </>
          )}
          {p.state === "accepted" && p.offer.recommended !== "today" && <OpenJob proposal={id} />}
          {p.state !== "draft" && p.state !== "brought_in" && p.latest && (
            <Link className="key" to={`/visits/${p.visit}/offer`}>
              Revise
            </Link>
          )}
        </div>
        <Seal standing={p.seal} state={p.state} />
        {p.said !== "" && <p className="max-w-[1040px] mx-auto my-4">{p.said}</p>}
        <Trouble error={decide.error} />
        {signing && p.state === "presented" && (
          <form
            className="max-w-[1040px] mx-auto grid gap-3 border-[1.5px] border-ink bg-slip p-5 my-4"
            onSubmit={(e) => {
              e.preventDefault();
              decide.mutate("accepted");
            }}
          >
            <h2>Accept this proposal</h2>
            <p className="text-m text-ink-2">
              {p.offer.cancel_text} {p.offer.cooling_off}
            </p>
            {p.offer.before_signing.length > 0 && (
              <fieldset>
                <legend className="font-semibold">Read and understood, one by one</legend>
                {p.offer.before_signing.map((k) => (
                  <label
                    key={k.stage + k.sentence}
                    className="flex gap-3 items-start min-h-11 py-1 border-b border-rule"
                  >
                    <input
                      type="checkbox"
                      className="w-6 h-6 shrink-0"
                      checked={read.includes(k.sentence)}
                      onChange={(e) =>
                        setRead(
                          e.target.checked
                            ? [...read, k.sentence]
                            : read.filter((x) => x !== k.sentence),
                        )
                      }
                    />
                    <span>
                      <b>{k.stage}:</b> {k.sentence}
                      {k.answer !== "" && <span className="block">Answered: {k.answer}</span>}
                    </span>
                  </label>
                ))}
              </fieldset>
            )}
            <label className="field max-w-[420px]">
              <span>Full name</span>
              <input
                className="input"
                required
                minLength={2}
                value={name}
                onChange={(e) => setName(e.target.value)}
              />
            </label>
            <SignaturePad path={path} onPath={setPath} />
            <div className="flex gap-3">
              <button
                className="key go"
                disabled={
                  decide.isPending ||
                  path.length < 12 ||
                  name.trim().length < 2 ||
                  p.offer.before_signing.some((k) => !read.includes(k.sentence))
                }
              >
                Sign
              </button>
              <button
                type="button"
                className="key"
                style={{ minHeight: 60 }}
                onClick={() => setPath("")}
              >
                Clear
              </button>
              <button type="button" className="key bare" onClick={() => setSigning(false)}>
                Not now
              </button>
            </div>
          </form>
        )}
        {p.signature && (
          <div className="max-w-[1040px] mx-auto my-4 flex gap-6 items-center border-[1.5px] border-ink p-4">
            <svg viewBox="0 0 600 160" width={220} role="img" aria-label="Signature">
              <path d={p.signature.path} fill="none" stroke="var(--ink)" strokeWidth={4} />
            </svg>
            <p>
              <b>{p.signature.name}</b>, {new Date(p.signature.at).toLocaleString()}
              <br />
              <span className="text-s text-ink-2 break-all">digest {p.signature.digest}</span>
            </p>
          </div>
        )}
        {sharing && (
          <Share
            proposal={id}
            visit={p.visit}
            to={p.offer.customer.email}
            draft={p.state === "draft"}
            due={
              p.offer.options
                .find((o) => o.id === p.offer.recommended)
                ?.costs.some((c) => c.lines.some((l) => l.interval_months !== null)) ?? false
            }
          />
        )}
        {p.changed.length > 0 && (
          <details className="max-w-[1040px] mx-auto my-4" open>
            <summary className="min-h-11 flex items-center font-d font-[640] text-[22px] cursor-pointer">
              What changed since the revision before
            </summary>
            <div className="overflow-x-auto">
              <table className="w-full text-m">
                <thead>
                  <tr className="text-left border-b-[1.5px] border-ink">
                    <th className="py-2 pr-4">What</th>
                    <th className="pr-4">Before</th>
                    <th>Now</th>
                  </tr>
                </thead>
                <tbody>
                  {p.changed.map((c) => (
                    <tr key={c.what} className="border-b border-rule align-top">
                      <th scope="row" className="text-left py-2 pr-4 font-semibold">
                        {c.what}
                      </th>
                      <td className="pr-4 text-ink-2">{c.before}</td>
                      <td>{c.after}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </details>
        )}
        <OfferView offer={p.offer} />
      </main>
    </div>
  );
}
