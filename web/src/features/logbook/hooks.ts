/** The firm's memory, from the server. */
import {
  keepPreviousData,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from "@tanstack/react-query";

import { api, data, every } from "../../api/client";
import type { components } from "../../api/schema.generated";

type S = components["schemas"];
export type HomePage = S["HomePage"];
export type HomeLine = S["HomeLine"];
export type HomeYears = S["HomeYears"];
export type Series = S["Series"];
export type Track = S["Track"];
export type Kept = S["Kept"];
export type Pair = S["WaterPair"];
export type Lasted = S["Lasted"];
export type Outcome = S["Outcome"];
export type More = S["TrackMore"];
export type HomeNote = S["HomeNote"];
export type Drift = S["InstrumentDrift"];

export interface Asked {
  find: string;
  place: string;
  source: string;
  /** a kind of stage that the firm fitted */
  fitted: string;
  /** days within which something falls due */
  due: string;
  /** an analyte that asked for something at the latest visit */
  found: string;
  /** a kind of equipment that stands there, whoever sold it */
  there: string;
  after: string;
}

/** Every home. */
export const ALL: Asked = {
  find: "",
  place: "",
  source: "",
  fitted: "",
  due: "",
  found: "",
  there: "",
  after: "",
};

/** The filters as the server takes them; what is empty is left out. */
export function filtersOf(q: Asked): {
  find?: string;
  place?: string;
  source?: S["Source"];
  fitted?: string;
  due?: number;
  found?: string;
  there?: string;
} {
  return {
    ...(q.find ? { find: q.find } : {}),
    ...(q.place ? { place: q.place } : {}),
    ...(q.source ? { source: q.source as S["Source"] } : {}),
    ...(q.fitted ? { fitted: q.fitted } : {}),
    ...(q.due ? { due: Number(q.due) } : {}),
    ...(q.found ? { found: q.found } : {}),
    ...(q.there ? { there: q.there } : {}),
  };
}

export const useHomes = (q: Asked, enabled = true): UseQueryResult<HomePage> =>
  useQuery({
    queryKey: ["homes", q],
    enabled,
    placeholderData: keepPreviousData,
    queryFn: () =>
      data(
        api.GET("/api/homes", {
          params: { query: { ...filtersOf(q), after: q.after } },
        }),
      ),
  });

export const useYears = (id: string): UseQueryResult<HomeYears> =>
  useQuery({
    queryKey: ["years", id],
    queryFn: () =>
      data(api.GET("/api/homes/{id}/years", { params: { path: { id } } })) as Promise<HomeYears>,
  });

export const useTrack = (): UseQueryResult<Track> =>
  useQuery({ queryKey: ["track"], queryFn: () => data(api.GET("/api/track")) });

export const useTrackMore = (): UseQueryResult<More> =>
  useQuery({ queryKey: ["track", "more"], queryFn: () => data(api.GET("/api/track/more")) });

export const useDrifts = (): UseQueryResult<Drift[]> =>
  useQuery({
    queryKey: ["instruments", "drift"],
    queryFn: () => every((page) => api.GET("/api/instruments/drift", { params: { query: page } })),
  });

/** A note on a home, kept under its own id: sent again it changes nothing. */
interface PutNote {
  id: string;
  on: string;
  text: string;
  kind: HomeNote["kind"];
}

/** Closes a complaint or warranty case with what came of it; without that opens it again. */
export function useCloseCase(
  home: string,
): UseMutationResult<HomeNote, Error, { id: string; outcome: string }> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, outcome }) =>
      data(
        api.POST("/api/homes/{id}/notes/{note_id}/close", {
          params: { path: { id: home, note_id: id } },
          body: { outcome },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["years", home] }),
  });
}

export function usePutNote(home: string): UseMutationResult<HomeNote, Error, PutNote> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, ...body }) =>
      data(
        api.PUT("/api/homes/{id}/notes/{note_id}", {
          params: { path: { id: home, note_id: id } },
          body,
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["years", home] }),
  });
}

/** Strikes a note with its reason; without one takes that back. */
export function useStrikeNote(
  home: string,
): UseMutationResult<HomeNote, Error, { id: string; because: string }> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, because }) =>
      data(
        api.POST("/api/homes/{id}/notes/{note_id}/strike", {
          params: { path: { id: home, note_id: id } },
          body: { because },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["years", home] }),
  });
}
