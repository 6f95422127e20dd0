/** What a manager asks on a Monday, from the server. */
import { useQuery, type UseQueryResult } from "@tanstack/react-query";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";

export type Monday = components["schemas"]["Monday"];
export type Part = components["schemas"]["MondayPart"];
export type Row = components["schemas"]["MondayRow"];
export type What = Part["what"];

export const useMonday = (day: string): UseQueryResult<Monday> =>
  useQuery({
    queryKey: ["monday", day],
    queryFn: () => data(api.GET("/api/monday", { params: { query: day ? { day } : {} } })),
    placeholderData: (old) => old,
  });

const NOTHING: Omit<Part, "what"> = { many: 0, total: null, rows: [] };

export const partOf = (m: Monday, what: What): Part =>
  m.parts.find((p) => p.what === what) ?? { what, ...NOTHING };
