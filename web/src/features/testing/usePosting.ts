/** How a bottle drawn now fares by post; asked anew each minute at most. */
import { useQuery, type UseQueryResult } from "@tanstack/react-query";

import { api, data } from "../../api/client";
import type { Posting } from "../../api/types";
import { exactNow } from "./timers";

const FRESH_MS = 60_000;

export function usePosting(): UseQueryResult<Posting[]> {
  return useQuery({
    queryKey: ["posting"],
    staleTime: FRESH_MS,
    queryFn: () =>
      data(api.GET("/api/laboratory/posting", { params: { query: { at: exactNow() } } })),
  });
}
