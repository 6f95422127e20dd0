/** What may be done with a proposal, by how it stands. */
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { say } from "../../app/language";
import { ReasonKey } from "../../ui/ReasonKey";
import { OpenJob } from "../aftercare/OpenJob";
import { CancelSale } from "./CancelSale";
import type { Decide, View } from "./useDecide";

const INKED = { background: "var(--ink)", color: "var(--paper)" };

interface Part {
  p: View;
  decide: Decide;
}

/** A draft is presented, in the place of what was presented before or beside it. */
function Present({ p, decide }: Part): ReactElement {
  const [two, setTwo] = useState(p.people.some((x) => x.part === "decides"));
  const present = (beside: boolean): void =>
    decide.mutate({ to: "presented", beside, two_sign: two });
  return (
    <>
      <label className="flex gap-2 items-center min-h-11">
        <input
          type="checkbox"
          className="w-5 h-5"
          checked={two}
          onChange={(e) => setTwo(e.target.checked)}
        />
        {say("Two decide: both sign")}
      </label>
      {p.beside_others && (
        <button className="key" disabled={decide.isPending} onClick={() => present(true)}>
          {say("Present beside the first")}
        </button>
      )}
      <button
        className="key"
        style={INKED}
        disabled={decide.isPending}
        onClick={() => present(false)}
      >
        {p.beside_others ? say("Present in its place") : say("Present it")}
      </button>
    </>
  );
}

/** It comes to nothing: the customer declined, or the firm takes it back. */
function ToNothing({ decide }: { decide: Decide }): ReactElement {
  return (
    <>
      <ReasonKey
        words={say("Declined")}
        title={say("The customer declined")}
        hint={say("In their words: price, another firm, not now.")}
        needed={false}
        busy={decide.isPending}
        onReason={(because) => decide.mutate({ to: "declined", because })}
      />
      <ReasonKey
        words={say("Withdraw")}
        title={say("Withdraw this proposal")}
        hint={say("The customer’s link then says that it no longer holds.")}
        busy={decide.isPending}
        onReason={(because) => decide.mutate({ to: "withdrawn", because })}
      />
    </>
  );
}

function AfterSigning({ p, decide }: Part): ReactElement {
  return (
    <>
      <CancelSale
        until={p.right_to_cancel_until ?? null}
        busy={decide.isPending}
        onCancel={(because, terms) => decide.mutate({ to: "cancelled", because, terms })}
      />
      {p.offer.recommended !== "today" && <OpenJob proposal={p.id} />}
    </>
  );
}

export function Moves({ p, decide, onSign }: Part & { onSign: () => void }): ReactElement {
  const revisable = !["draft", "brought_in", "replaced"].includes(p.state) && p.latest;
  return (
    <>
      {p.state === "draft" && <Present p={p} decide={decide} />}
      {(p.state === "presented" || p.state === "expired") && <ToNothing decide={decide} />}
      {p.state === "presented" && (
        <button className="key" style={INKED} onClick={onSign}>
          {say("Accept and sign")}
        </button>
      )}
      {p.state === "accepted" && <AfterSigning p={p} decide={decide} />}
      {p.replaced_by !== "" && (
        <Link className="key" style={INKED} to={`/proposals/${p.replaced_by}`}>
          {say("Open the newer one")}
        </Link>
      )}
      {revisable && (
        <Link className="key" to={`/visits/${p.visit}/offer`}>
          {say("Revise")}
        </Link>
      )}
    </>
  );
}
