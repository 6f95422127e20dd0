/** A signature as it was given: drawn, or the name typed in its place. */
import type { ReactElement } from "react";

import type { components } from "../../api/schema.generated";
import { moment } from "../../app/when";
import { say } from "../../app/language";

export function SignedBy({ by }: { by: components["schemas"]["Signature"] }): ReactElement {
  return (
    <div
      className={
        "max-w-[1040px] mx-auto my-4 flex flex-wrap gap-6 items-center border-[1.5px] " +
        "border-ink p-4"
      }
    >
      {by.typed ? (
        <span className="font-d text-[28px]">{by.name}</span>
      ) : (
        <svg viewBox="0 0 600 160" width={220} role="img" aria-label={say("Signature")}>
          <path d={by.path} fill="none" stroke="var(--ink)" strokeWidth={4} />
        </svg>
      )}
      <p>
        <b>{by.name}</b>, {moment(by.at)}
        {by.typed && say(", signed by typing the name")}
        <br />
        <span className="text-s text-ink-2 break-all">
          {say("digest {digest}", { digest: by.digest })}
        </span>
      </p>
    </div>
  );
}
