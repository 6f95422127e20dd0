/** Pictures of a visit, from the server. */
import {
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from "@tanstack/react-query";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { upload } from "../../api/upload";
import { newId } from "../../app/names";
import { small } from "./small";

export type PictureLine = components["schemas"]["PictureLine"];
export type About = PictureLine["about"];

export const usePictures = (visit: string): UseQueryResult<PictureLine[]> =>
  useQuery({
    queryKey: ["pictures", visit],
    staleTime: 60_000,
    queryFn: () => data(api.GET("/api/visits/{id}/pictures", { params: { path: { id: visit } } })),
  });

export const pathOf = (visit: string, picture: string): string =>
  `/api/visits/${visit}/pictures/${picture}`;

export function useTake(
  visit: string,
  about: About,
  of: string,
): UseMutationResult<PictureLine, Error, File> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (file: File) => {
      const to = new URLSearchParams({ about, of }).toString();
      const made = await small(file);
      return upload<PictureLine>(`${pathOf(visit, newId())}?${to}`, made, made.type, "PUT");
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ["pictures", visit] }),
  });
}

export function useTakeAway(visit: string): UseMutationResult<unknown, Error, string> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (picture: string) =>
      data(
        api.DELETE("/api/visits/{id}/pictures/{file_id}", {
          params: { path: { id: visit, file_id: picture } },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["pictures", visit] }),
  });
}
