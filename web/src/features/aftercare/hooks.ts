/** Jobs and what falls due, from the server; every change answers with the job as it is then. */
import {
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from "@tanstack/react-query";

import { api, data, every } from "../../api/client";
import type { components } from "../../api/schema.generated";

type S = components["schemas"];
export type JobView = S["JobView"];
export type JobLine = S["JobLine"];
export type DueLine = S["DueLine"];
export type DueList = S["DueList"];
export type Sheet = S["Sheet"];
export type Proved = S["Proved"];
export type Falling = S["Falling"];
export type ProofBody = S["Proof"];
export type Plumbing = S["Plumbing"];
export type FollowUp = S["FollowUp"];

export const useJob = (id: string): UseQueryResult<JobView> =>
  useQuery({
    queryKey: ["job", id],
    queryFn: () => data(api.GET("/api/jobs/{id}", { params: { path: { id } } })),
  });

export const useJobs = (): UseQueryResult<JobLine[]> =>
  useQuery({
    queryKey: ["jobs"],
    queryFn: () => every((page) => api.GET("/api/jobs", { params: { query: page } })),
  });

export const useDue = (until?: string): UseQueryResult<DueList> =>
  useQuery({
    queryKey: ["due", until ?? ""],
    queryFn: () => data(api.GET("/api/due", { params: { query: until ? { until } : {} } })),
  });

export const useFitters = (): UseQueryResult<S["Fitters"]> =>
  useQuery({ queryKey: ["fitters"], queryFn: () => data(api.GET("/api/fitters")) });

export type WaitingLine = S["WaitingLine"];
export const useWaiting = (): UseQueryResult<WaitingLine[]> =>
  useQuery({
    queryKey: ["waiting"],
    queryFn: () => every((page) => api.GET("/api/waiting", { params: { query: page } })),
  });

type OfPart =
  | { what: "change"; change: string; body: S["ChangeBody"] }
  | { what: "unchange"; change: string }
  | { what: "gauge"; gauge: string; body: S["GaugeBody"] }
  | { what: "ungauge"; gauge: string }
  | { what: "move"; move: string; body: S["MoveBody"] }
  | { what: "unmove"; move: string };

export type Doing =
  | OfPart
  | { what: "plan"; body: S["PlanBody"] }
  | { what: "plumbing"; body: S["PlumbingBody"] }
  | { what: "fitted"; body: S["FittedBody"] }
  | { what: "end" | "reopen"; body: S["EndBody"] }
  | { what: "tick"; body: S["TickBody"] }
  | { what: "proof"; body: ProofBody }
  | { what: "strike"; reading: string; because: string }
  | { what: "follow"; follow: string; body: S["FollowUpBody"] };

/** What became of one part or piece of a job. */
function sendOfPart(id: string, d: OfPart): Promise<unknown> {
  switch (d.what) {
    case "change":
      return data(
        api.PUT("/api/jobs/{id}/changes/{change_id}", {
          params: { path: { id, change_id: d.change } },
          body: d.body,
        }),
      );
    case "unchange":
      return data(
        api.DELETE("/api/jobs/{id}/changes/{change_id}", {
          params: { path: { id, change_id: d.change } },
        }),
      );
    case "gauge":
      return data(
        api.PUT("/api/jobs/{id}/gauges/{gauge_id}", {
          params: { path: { id, gauge_id: d.gauge } },
          body: d.body,
        }),
      );
    case "ungauge":
      return data(
        api.DELETE("/api/jobs/{id}/gauges/{gauge_id}", {
          params: { path: { id, gauge_id: d.gauge } },
        }),
      );
    case "move":
      return data(
        api.PUT("/api/jobs/{id}/moves/{move_id}", {
          params: { path: { id, move_id: d.move } },
          body: d.body,
        }),
      );
    case "unmove":
      return data(
        api.DELETE("/api/jobs/{id}/moves/{move_id}", {
          params: { path: { id, move_id: d.move } },
        }),
      );
  }
}

function send(id: string, d: Doing): Promise<unknown> {
  const path = { id };
  switch (d.what) {
    case "plan":
      return data(api.PUT("/api/jobs/{id}/plan", { params: { path }, body: d.body }));
    case "plumbing":
      return data(api.PUT("/api/jobs/{id}/plumbing", { params: { path }, body: d.body }));
    case "fitted":
      return data(api.PUT("/api/jobs/{id}/fitted", { params: { path }, body: d.body }));
    case "end":
      return data(api.POST("/api/jobs/{id}/end", { params: { path }, body: d.body }));
    case "reopen":
      return data(api.POST("/api/jobs/{id}/reopen", { params: { path }, body: d.body }));
    case "tick":
      return data(api.POST("/api/jobs/{id}/ticks", { params: { path }, body: d.body }));
    case "proof":
      return data(
        api.PUT("/api/jobs/{id}/proofs/{reading_id}", {
          params: { path: { id, reading_id: d.body.reading.id } },
          body: d.body,
        }),
      );
    case "strike":
      return data(
        api.POST("/api/jobs/{id}/proofs/{reading_id}/strike", {
          params: { path: { id, reading_id: d.reading } },
          body: { because: d.because },
        }),
      );
    case "follow":
      return data(
        api.PUT("/api/jobs/{id}/follow-ups/{follow_id}", {
          params: { path: { id, follow_id: d.follow } },
          body: d.body,
        }),
      );
    default:
      return sendOfPart(id, d);
  }
}

/** Everything that is done at a job. */
export function useDo(id: string): UseMutationResult<JobView, Error, Doing> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (d: Doing) => send(id, d) as Promise<JobView>,
    onSuccess: (job) => {
      client.setQueryData(["job", id], job);
      void client.invalidateQueries({ queryKey: ["jobs"] });
      void client.invalidateQueries({ queryKey: ["due"] });
    },
    onError: () => void client.invalidateQueries({ queryKey: ["job", id] }),
  });
}
