/** From a signed proposal to its job. */
import { useMutation } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { useNavigate } from "react-router";

import { api, data } from "../../api/client";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

export function OpenJob({ proposal }: { proposal: string }): ReactElement {
  const navigate = useNavigate();
  const open = useMutation({
    mutationFn: () =>
      data(api.POST("/api/proposals/{id}/job", { params: { path: { id: proposal } } })),
    onSuccess: (job) => void navigate(`/jobs/${job.id}`),
  });
  return (
    <>
      <button
        className="key"
        style={{ background: "var(--ink)", color: "var(--paper)" }}
        disabled={open.isPending}
        onClick={() => open.mutate()}
      >
        {say("Open the job")}
      </button>
      <Trouble error={open.error} />
    </>
  );
}
