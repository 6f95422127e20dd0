/** The firm's memory, from the server. */
import { keepPreviousData, useQuery, type UseQueryResult } from "@tanstack/react-query";

import { api, data } from "../../api/client";
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

export interface Asked {
  find: string;
  place: string;
  source: string;
  after: string;
}

export const useHomes = (q: Asked, enabled = true): UseQueryResult<HomePage> =>
  useQuery({
    queryKey: ["homes", q],
    enabled,
    placeholderData: keepPreviousData,
    queryFn: () =>
      data(
        api.GET("/api/homes", {
          params: {
            query: {
              find: q.find,
              place: q.place,
              source: (q.source || undefined) as S["Source"] | undefined,
              after: q.after,
            },
          },
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
