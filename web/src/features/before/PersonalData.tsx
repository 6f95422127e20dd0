/** What is kept of the customer: given out, and erased. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useMe } from "../../api/hooks";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

export function PersonalData(): ReactElement {
  const { id } = useVisitContext();
  const me = useMe();
  const client = useQueryClient();
  const [sure, setSure] = useState(false);
  const erase = useMutation({
    mutationFn: () => data(api.POST("/api/visits/{id}/erase", { params: { path: { id } } })),
    onSuccess: () => {
      setSure(false);
      void client.invalidateQueries();
    },
  });
  return (
    <details className="mt-4 text-m">
      <summary className="min-h-11 flex items-center cursor-pointer">
        {say("What is kept of this person")}
      </summary>
      <div className="flex gap-3 flex-wrap items-center">
        <a className="key" href={`/api/visits/${id}/personal-data`} download>
          {say("Give it out as a file")}
        </a>
        {me.data?.role === "manager" && !sure && (
          <button type="button" className="key bare" onClick={() => setSure(true)}>
            {say("Erase this person")}
          </button>
        )}
        {sure && (
          <>
            <span>
              {say(
                "Name, address, words and signature go everywhere and cannot come back. " +
                  "Figures and proposals stay without them.",
              )}
            </span>
            <button type="button" className="key" onClick={() => erase.mutate()}>
              {say("Erase")}
            </button>
            <button type="button" className="key bare" onClick={() => setSure(false)}>
              {say("Keep")}
            </button>
          </>
        )}
      </div>
      <Trouble error={erase.error} again={() => erase.mutate()} />
    </details>
  );
}
