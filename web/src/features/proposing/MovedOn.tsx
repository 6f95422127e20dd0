/** What would be said otherwise today than in a proposal: read before signing, and of health before
 * fitting. */
import type { ReactElement } from "react";
import { Link } from "react-router";

import type { components } from "../../api/schema.generated";
import { say } from "../../app/language";

export function MovedOn({
  moved,
  visit,
  signed,
}: {
  moved: components["schemas"]["MovedOn"] | undefined;
  visit: string;
  signed: boolean;
}): ReactElement | null {
  const health = moved?.health ?? [];
  const changes = moved?.changes ?? [];
  if (health.length + changes.length === 0) return null;
  return (
    <section
      role="alert"
      className="max-w-[1040px] mx-auto my-4 border-[2.5px] border-zest bg-slip p-4"
    >
      <h2>
        {signed
          ? say("Look at this again before it is fitted")
          : say("Look at this again before anybody signs")}
      </h2>
      <p className="text-m text-ink-2 mb-2">
        {signed
          ? say("The paper stays as it was signed. Found since:")
          : say("The paper stays as it is, and is what would be signed. Since it was presented:")}
      </p>
      <ul className="list-disc pl-5 text-b">
        {health.map((s) => (
          <li key={s}>
            <b>{s}</b>
          </li>
        ))}
        {changes.map((c) => (
          <li key={c.what + c.before + c.after}>
            {c.what === "Found" ? (
              <>{c.before === "not found" ? c.after : `${c.before} (${c.after})`}</>
            ) : (
              <>
                <b>{c.what}:</b> {c.before} → {c.after}
              </>
            )}
          </li>
        ))}
      </ul>
      <Link className="key mt-3" to={`/visits/${visit}/offer`}>
        {say("Write the next revision")}
      </Link>
    </section>
  );
}
