/** Server state: queries and mutations; the only cache of what the server knows. */
import {
  QueryClient,
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from "@tanstack/react-query";

import { speak, useLanguage, type Language } from "../app/language";
import { currentUnits, useUnits } from "../app/units";
import { api, data, dataOnce, every, Failed, setToken } from "./client";
import type { components } from "./schema.generated";
import type {
  Customer,
  Demonstration,
  DemoWords,
  Home,
  Instrument,
  Item,
  LabKind,
  LabSample,
  Me,
  Option,
  ProposalView,
  Reference,
  Sample,
  Saved,
  VisitSummary,
  VisitView,
} from "./types";

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (n, e) => n < 2 && e instanceof Failed && e.problem.status === 0,
      staleTime: 10_000,
      refetchOnWindowFocus: false,
    },
    mutations: { retry: false },
  },
});

/** Who is signed in; with it comes the token that every change is sent with. */
export const me = queryOptions({
  queryKey: ["me"],
  staleTime: Infinity,
  queryFn: async () => {
    const told = await data(api.GET("/api/session"));
    setToken(told.token);
    return told;
  },
});
export const useMe = (): UseQueryResult<Me> => useQuery(me);

export const useReference = (): UseQueryResult<Reference> =>
  useQuery({
    queryKey: ["reference"],
    staleTime: Infinity,
    queryFn: () => data(api.GET("/api/reference")),
  });
export const useInstruments = (): UseQueryResult<Instrument[]> =>
  useQuery({
    queryKey: ["instruments"],
    staleTime: 60_000,
    queryFn: () => every((page) => api.GET("/api/instruments", { params: { query: page } })),
  });
export const useCatalogue = (): UseQueryResult<Item[]> =>
  useQuery({
    queryKey: ["catalogue"],
    staleTime: 60_000,
    queryFn: () => every((page) => api.GET("/api/catalogue", { params: { query: page } })),
  });
export const useVisits = (): UseQueryResult<VisitSummary[]> =>
  useQuery({
    queryKey: ["visits"],
    queryFn: () => every((page) => api.GET("/api/visits", { params: { query: page } })),
  });
export function useVisit(id: string): UseQueryResult<VisitView> {
  const units = useUnits();
  const language = useLanguage();
  return useQuery({
    // what faces the customer is fetched in their language, beside what the consultant reads
    queryKey: language === "en" ? ["visit", id] : ["visit", id, language],
    queryFn: () =>
      dataOnce(`visit ${id} ${units ?? ""} ${language}`, (headers) =>
        api.GET("/api/visits/{id}", {
          params: { path: { id }, query: { ...(units ? { units } : {}), language } },
          headers,
        }),
      ),
    placeholderData: (old) => (old?.visit.id === id ? old : undefined),
  });
}
export type Comparison = components["schemas"]["Comparison"];
export type Use = "low" | "expected" | "high";
export const useComparison = (id: string, use: Use = "expected"): UseQueryResult<Comparison> =>
  useQuery({
    queryKey: ["visit", id, "comparison", use],
    queryFn: () =>
      dataOnce(`comparison ${id} ${use} ${JSON.stringify(currentUnits())}`, (headers) =>
        api.GET("/api/visits/{id}/comparison", {
          params: { path: { id }, query: { ...currentUnits(), use } },
          headers,
        }),
      ),
    placeholderData: (old) => old,
  });
export type Renting = components["schemas"]["Renting"];
/** What the firm lets of the options, over so many years; read anew with the visit. */
export const useRenting = (id: string, years: number): UseQueryResult<Renting[]> =>
  useQuery({
    queryKey: ["visit", id, "renting", years],
    queryFn: () =>
      data(
        api.GET("/api/visits/{id}/renting", {
          params: { path: { id }, query: { years: years as 5 | 10 | 15 | 20 } },
        }),
      ),
    placeholderData: (old) => old,
  });
export type FirmView = components["schemas"]["FirmView"];
export const useFirm = (): UseQueryResult<FirmView> =>
  useQuery({ queryKey: ["firm"], queryFn: () => data(api.GET("/api/firm")) });
export const useLabKinds = (): UseQueryResult<LabKind[]> =>
  useQuery({
    queryKey: ["lab-kinds"],
    staleTime: Infinity,
    queryFn: () => data(api.GET("/api/laboratory/kinds")),
  });
export const useProposal = (id: string, language: Language): UseQueryResult<ProposalView> =>
  useQuery({
    queryKey: ["proposal", id, language],
    placeholderData: (old) => (old?.id === id ? old : undefined),
    queryFn: async () => {
      const found = await data(
        api.GET("/api/proposals/{id}", { params: { path: { id }, query: { language } } }),
      );
      await speak(language);
      return found;
    },
  });

type Mutation<T, V> = UseMutationResult<T, Error, V>;

/** A change of a visit; those that name a turn go out one after the other. */
function useVisitMutation<V, T>(
  id: string,
  run: (v: V, client: QueryClient) => Promise<T>,
  turn?: string,
): Mutation<T, V> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (v: V) => run(v, client),
    ...(turn === undefined ? {} : { scope: { id: `${turn} ${id}` } }),
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ["visit", id] });
      void client.invalidateQueries({ queryKey: ["visits"] });
    },
  });
}

export interface VisitFields {
  version: number;
  complaints?: { id: string; sign: string; words: string }[];
  step?: string;
  recommended?: string | null;
  horizon?: number;
  assumptions_off?: string[];
  note?: string;
}

/** What was last kept here, as a visit's version or a line; never fetched, for it is ours. */
export const own = (what: string): readonly string[] => ["kept here", what];

/**
 * Changes of a visit made here go out in turn, each on top of the last one's version: quick touches
 * do not refuse each other.
 */
export const useChangeVisit = (id: string): Mutation<Saved, VisitFields> =>
  useVisitMutation(
    id,
    async (body, client) => {
      const last = client.getQueryData<number>(own(id)) ?? 0;
      const version = Math.max(body.version, last);
      const saved = await data(
        api.PATCH("/api/visits/{id}", { params: { path: { id } }, body: { ...body, version } }),
      );
      client.setQueryData(own(id), saved.version);
      return saved;
    },
    "changes of",
  );
export interface Told {
  customer: Customer;
  home: Home;
}
/**
 * Edits of customer and home go out in turn, each on top of what was last kept here, so that quick
 * answers neither refuse nor undo each other.
 */
export const useChangeHome = (
  id: string,
): Mutation<Saved, Told & { version: number; edit: (told: Told) => Told }> =>
  useVisitMutation(
    id,
    async ({ customer, home, version, edit }, client) => {
      const key = own(`home of ${id}`);
      const known = client.getQueryData<Told & { version: number }>(key);
      const on = known && known.version > version ? known : { customer, home, version };
      const told = edit({ customer: on.customer, home: on.home });
      const body = { ...told, version: on.version };
      const saved = await data(
        api.PUT("/api/visits/{id}/home", { params: { path: { id } }, body }),
      );
      client.setQueryData(key, { ...told, version: saved.version });
      return saved;
    },
    "home of",
  );
interface PutSample {
  sample: Sample;
  version?: number;
  /** A new raw glass takes the place of the one before. */
  instead?: boolean;
}
export const usePutSample = (id: string): Mutation<Saved, PutSample> =>
  useVisitMutation(id, ({ sample, version, instead }) =>
    data(
      api.PUT("/api/visits/{id}/samples/{sample_id}", {
        params: {
          path: { id, sample_id: sample.id },
          query: instead ? { instead } : {},
          header: version === undefined ? {} : { "If-Match-Version": version },
        },
        body: { ...sample, readings: [] },
      }),
    ),
  );
export const useStrike = (id: string): Mutation<Saved, { reading: string; because: string }> =>
  useVisitMutation(id, ({ reading, because }) =>
    data(
      api.POST("/api/visits/{id}/readings/{reading_id}/strike", {
        params: { path: { id, reading_id: reading } },
        body: { because },
      }),
    ),
  );
export const usePutOption = (id: string): Mutation<Saved, { option: Option }> =>
  useVisitMutation(id, ({ option }) =>
    data(
      api.PUT("/api/visits/{id}/options/{option_id}", {
        params: { path: { id, option_id: option.id } },
        body: option,
      }),
    ),
  );
interface OptionEdit {
  option: Option;
  version: number;
  edit: (o: Option) => Option;
}
interface Edited {
  option: Option;
  version: number;
}
/**
 * Edits of lines go out in turn, each on top of what was last kept of its line here, so that quick
 * touches neither refuse nor undo each other.
 */
export const useEditOption = (id: string): Mutation<Saved, OptionEdit> =>
  useVisitMutation(
    id,
    async ({ option, version, edit }, client) => {
      const known = client.getQueryData<Edited>(own(option.id));
      const on = known && known.version > version ? known : { option, version };
      const changed = edit(on.option);
      const saved = await data(
        api.PUT("/api/visits/{id}/options/{option_id}", {
          params: {
            path: { id, option_id: option.id },
            header: { "If-Match-Version": on.version },
          },
          body: changed,
        }),
      );
      client.setQueryData<Edited>(own(option.id), { option: changed, version: saved.version });
      return saved;
    },
    "lines of",
  );
export const usePutLabSample = (
  id: string,
): Mutation<Saved, { bottle: LabSample; version?: number }> =>
  useVisitMutation(id, ({ bottle, version }) =>
    data(
      api.PUT("/api/visits/{id}/lab-samples/{lab_id}", {
        params: {
          path: { id, lab_id: bottle.id },
          header: version === undefined ? {} : { "If-Match-Version": version },
        },
        body: bottle,
      }),
    ),
  );
export const useKeepDemonstration = (
  id: string,
): Mutation<Saved, { made: Demonstration; version?: number }> =>
  useVisitMutation(id, ({ made, version }) =>
    data(
      api.PUT("/api/visits/{id}/demonstrations/{demo_id}", {
        params: {
          path: { id, demo_id: made.id },
          header: version === undefined ? {} : { "If-Match-Version": version },
        },
        body: made,
      }),
    ),
  );
export const useStartTasting = (
  id: string,
): Mutation<Saved, { id: string; samples: string[]; tasters: string[]; sanitised: string[] }> =>
  useVisitMutation(id, (body) =>
    data(api.POST("/api/visits/{id}/tastings", { params: { path: { id } }, body })),
  );
export function useDemonstrations(): UseQueryResult<DemoWords> {
  const language = useLanguage();
  return useQuery({
    queryKey: ["demonstrations", language],
    staleTime: Infinity,
    queryFn: () => data(api.GET("/api/demonstrations", { params: { query: { language } } })),
  });
}
export const useDropOption = (id: string): Mutation<unknown, string> =>
  useVisitMutation(id, (option) =>
    data(
      api.DELETE("/api/visits/{id}/options/{option_id}", {
        params: { path: { id, option_id: option } },
      }),
    ),
  );
