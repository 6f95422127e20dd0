/** What may be decided of a proposal, over the wire. */
import { useMutation, useQueryClient, type QueryClient } from "@tanstack/react-query";

import { api, data } from "../../api/client";
import type { useProposal } from "../../api/hooks";
import type { Language } from "../../app/language";
import type { Signed } from "./SignForm";

export type View = NonNullable<ReturnType<typeof useProposal>["data"]>;
type To = "presented" | "accepted" | "declined" | "withdrawn" | "cancelled";
interface Move {
  to: To;
  signed?: Signed;
  because?: string;
  terms?: string;
  beside?: boolean;
  two_sign?: boolean;
}
const PLAIN = { because: "", terms: "", beside: false, two_sign: false };
const UNSIGNED: Signed = { name: "", path: "", typed: false, read: [] };

export function useDecide(p: View, language: Language, then: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ to, signed, ...told }: Move) =>
      data(
        api.POST("/api/proposals/{id}/{to}", {
          params: { path: { id: p.id, to } },
          body: { version: p.version, language, ...PLAIN, ...told, ...(signed ?? UNSIGNED) },
        }),
      ),
    onSuccess: (next) => {
      seenAnew(client, next);
      then();
    },
  });
}

/** What hangs on a proposal is asked again: other revisions, its visit, and what waits. */
function seenAnew(client: QueryClient, next: Pick<View, "visit">): void {
  for (const key of [["proposal"], ["visit", next.visit], ["waiting"]])
    void client.invalidateQueries({ queryKey: key });
}

export function useExtend(p: View) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (until: string) =>
      data(
        api.PUT("/api/proposals/{id}/until", {
          params: { path: { id: p.id } },
          body: { version: p.version, until },
        }),
      ),
    onSuccess: (next) => seenAnew(client, next),
  });
}

export function useCorrect(p: View) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (said: string) =>
      data(
        api.PUT("/api/proposals/{id}/correction", {
          params: { path: { id: p.id } },
          body: { version: p.version, said },
        }),
      ),
    onSuccess: (next) => seenAnew(client, next),
  });
}

export type Decide = ReturnType<typeof useDecide>;
