/** The firm's people, invitations, tokens and trail, and what changes them. */
import {
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from "@tanstack/react-query";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { newId } from "../../app/names";
import { spoken } from "../../app/language";

type S = components["schemas"];
export type People = S["People"];
export type PersonView = S["PersonView"];
export type Invited = S["Invited"];
export type TokenView = S["TokenView"];
export type TokenMade = S["TokenMade"];
export type AuditPage = S["AuditPage"];
export type Role = PersonView["role"];
type Mutation<T, V> = UseMutationResult<T, Error, V>;

export const ROLES: [Role, string][] = spoken([
  ["consultant", "Consultant"],
  ["installer", "Fitter"],
  ["manager", "Manager"],
]);

export const usePeople = (): UseQueryResult<People> =>
  useQuery({
    queryKey: ["people"],
    queryFn: async () => {
      const all = await data(api.GET("/api/people"));
      while (all.more !== "") {
        const query = { after: all.more };
        const next = await data(api.GET("/api/people", { params: { query } }));
        all.people.push(...next.people);
        all.more = next.more;
      }
      return all;
    },
  });
export const useTokens = (): UseQueryResult<TokenView[]> =>
  useQuery({ queryKey: ["tokens"], queryFn: () => data(api.GET("/api/tokens")) });

function useChange<V, T>(key: string, run: (v: V) => Promise<T>): Mutation<T, V> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: run,
    onSettled: () => void client.invalidateQueries({ queryKey: [key] }),
  });
}

export interface Asked {
  email: string;
  name: string;
  role: Role;
  by_mail: boolean;
}
export const useInvite = (): Mutation<Invited, Asked> =>
  useChange("people", (asked) =>
    data(api.POST("/api/people/invitations", { body: { id: newId(), ...asked } })),
  );
export const useRevokeInvitation = (): Mutation<unknown, string> =>
  useChange("people", (id) =>
    data(api.DELETE("/api/people/invitations/{id}", { params: { path: { id } } })),
  );
export const useChangePerson = (): Mutation<PersonView, PersonView> =>
  useChange("people", ({ id, version, name, role }) =>
    data(api.PUT("/api/people/{id}", { params: { path: { id } }, body: { version, name, role } })),
  );
export const useTakeOut = (): Mutation<PersonView, { person: PersonView; to: string | null }> =>
  useChange("people", ({ person, to }) =>
    data(
      api.POST("/api/people/{id}/take-out", {
        params: { path: { id: person.id } },
        body: { version: person.version, to },
      }),
    ),
  );
export const useLetIn = (): Mutation<PersonView, PersonView> =>
  useChange("people", (p) =>
    data(
      api.POST("/api/people/{id}/let-in", {
        params: { path: { id: p.id } },
        body: { version: p.version },
      }),
    ),
  );
export const useNewPassword = (): Mutation<Invited, { id: string; by_mail: boolean }> =>
  useChange("people", ({ id, by_mail }) =>
    data(
      api.POST("/api/people/{id}/new-password", {
        params: { path: { id } },
        body: { id: newId(), by_mail },
      }),
    ),
  );
export const useMakeToken = (): Mutation<
  TokenMade,
  { name: string; scopes: TokenView["scopes"]; days: number }
> =>
  useChange("tokens", (asked) =>
    data(api.POST("/api/tokens", { body: { id: newId(), ...asked } })),
  );
export const useRevokeToken = (): Mutation<unknown, string> =>
  useChange("tokens", (id) => data(api.DELETE("/api/tokens/{id}", { params: { path: { id } } })));
