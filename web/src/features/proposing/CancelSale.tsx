/** Cancel what was signed: without a penalty while the right lasts, after that on written terms. */
import { useState, type ReactElement } from "react";

import { say } from "../../app/language";
import { dayLong } from "../../app/when";
import { ReasonKey } from "../../ui/ReasonKey";
import { today } from "../aftercare/dates";

export function CancelSale({
  until,
  busy,
  onCancel,
}: {
  until: string | null;
  busy: boolean;
  onCancel: (because: string, terms: string) => void;
}): ReactElement {
  const [terms, setTerms] = useState("");
  const late = until !== null && today() > until;
  const day = until === null ? "" : dayLong(`${until}T12:00:00`);
  return (
    <ReasonKey
      words={say("Cancel the sale")}
      title={say("Cancel the sale")}
      hint={
        late
          ? say("The right to cancel without a penalty ended on {day}.", { day })
          : say("Until {day} it can be cancelled without a penalty. Its job ends with it.", { day })
      }
      busy={busy}
      more={
        late && (
          <label className="field">
            <span>{say("On what terms")}</span>
            <textarea
              className="input"
              style={{ minHeight: 72, fontSize: 16 }}
              maxLength={2000}
              required
              value={terms}
              onChange={(e) => setTerms(e.target.value)}
            />
          </label>
        )
      }
      onReason={(because) => onCancel(because, terms)}
    />
  );
}
