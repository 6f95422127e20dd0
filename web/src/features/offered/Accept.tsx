/** Accept a proposal by its link: for the one who was not there, with the same rules of signing. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import type { Offer } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { SignForm, type Signed } from "../proposing/SignForm";
import { say, type Language } from "../../app/language";

export function Accept({
  token,
  offer,
  digest,
  until,
  language,
}: {
  token: string;
  offer: Offer;
  digest: string;
  until: string;
  language: Language;
}): ReactElement {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const accept = useMutation({
    mutationFn: (signed: Signed) =>
      data(
        api.POST("/api/offered/{token}/accept", {
          params: { path: { token } },
          body: { digest, ...signed, language },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["offered", token] }),
  });
  const name = offer.options.find((o) => o.id === offer.recommended)?.name ?? "";
  return (
    <section id="decide" className="max-w-[1040px] mx-auto my-5" aria-label={say("Decide")}>
      {open ? (
        <SignForm
          offer={offer}
          busy={accept.isPending}
          onSign={(signed) => accept.mutate(signed)}
          onNotNow={() => setOpen(false)}
        />
      ) : (
        <div className="flex flex-wrap gap-4 items-center border-y-[1.5px] border-ink py-4">
          <p className="flex-1 min-w-[240px] text-b">
            <b>{say("Recommended: {name}.", { name })}</b>{" "}
            {say("It can be accepted here until {until}.", { until })}
          </p>
          <button className="key go" onClick={() => setOpen(true)}>
            {say("Accept and sign")}
          </button>
        </div>
      )}
      <Trouble error={accept.error} />
    </section>
  );
}
