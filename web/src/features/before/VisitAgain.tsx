/** Start another visit to a home that was visited before. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { useNavigate } from "react-router";

import { api, data } from "../../api/client";
import { newId } from "../../app/names";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

export function VisitAgain({
  visit,
  words = say("Visit this home again"),
}: {
  visit: string;
  words?: string;
}): ReactElement {
  const [id] = useState(newId);
  const navigate = useNavigate();
  const client = useQueryClient();
  const again = useMutation({
    mutationFn: () =>
      data(
        api.POST("/api/visits/{id}/again", {
          params: { path: { id: visit } },
          body: { id, started_at: null },
        }),
      ),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["visits"] });
      void navigate(`/visits/${id}/before`);
    },
  });
  return (
    <>
      <button className="key" disabled={again.isPending} onClick={() => again.mutate()}>
        {words}
      </button>
      <Trouble error={again.error} />
    </>
  );
}
