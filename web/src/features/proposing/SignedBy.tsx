/** A signature as it was given: drawn, or the name typed in its place. */
import type { ReactElement, ReactNode } from "react";

import type { components } from "../../api/schema.generated";
import { moment } from "../../app/when";
import { say } from "../../app/language";

type Schemas = components["schemas"];

export function SignedBy({
  by,
  corrections,
  correct,
}: {
  by: Schemas["Signature"];
  corrections: readonly Schemas["Correction"][];
  correct: ReactNode;
}): ReactElement {
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
      <p className="flex-1">
        <b>{by.name}</b>, {moment(by.at)}
        {by.typed && say(", signed by typing the name")}
        <br />
        <span className="text-s text-ink-2 break-all">
          {say("digest {digest}", { digest: by.digest })}
        </span>
        {corrections.map((c) => (
          <span key={c.at} className="block">
            {say("Noted by {by}, {at}:", { by: c.by, at: moment(c.at) })} {c.said}
          </span>
        ))}
      </p>
      {correct}
    </div>
  );
}
