/** Items that are taken off sale, what still has them, and the way back. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { api, data, every } from "../../api/client";
import { say } from "../../app/language";
import { Fold } from "../../ui/Fold";
import { Trouble } from "../../ui/Trouble";

export function useSale() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ code, on }: { code: string; on: boolean }) =>
      data(api.PUT("/api/catalogue/{code}/sale", { params: { path: { code } }, body: { on } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["catalogue"] }),
  });
}

type Sale = ReturnType<typeof useSale>;

/** What was done, and what still has the item. */
export function SaleNote({ sale }: { sale: Sale }): ReactElement | null {
  if (sale.error) return <Trouble error={sale.error} />;
  if (!sale.data) return null;
  const { code, on, lines, jobs } = sale.data;
  const said = on
    ? say("{code} is on sale again.", { code })
    : say("{code} is off sale.", { code });
  return (
    <p role="status" className="text-b border-[1.5px] border-ink bg-slip p-3 my-3">
      <b>{said}</b>{" "}
      {say("It is in {lines} systems of visits and fitted in {jobs} jobs; they stay as they are.", {
        lines,
        jobs,
      })}
    </p>
  );
}

export function OffSale({ sale, may }: { sale: Sale; may: boolean }): ReactElement | null {
  const items = useQuery({
    queryKey: ["catalogue", "off"],
    queryFn: () => every((page) => api.GET("/api/catalogue/off-sale", { params: { query: page } })),
  });
  const list = items.data ?? [];
  if (list.length === 0) return null;
  return (
    <Fold title={say("Off sale: {n}", { n: list.length })} className="mt-3">
      <ul>
        {list.map((i) => (
          <li key={i.code} className="flex gap-3 items-center border-b border-rule min-h-12">
            <span className="flex-1">
              <b>{i.name}</b>{" "}
              <span className="text-s text-ink-2">
                {i.code}, {i.maker}
              </span>
            </span>
            {may && (
              <button
                className="key bare"
                disabled={sale.isPending}
                onClick={() => sale.mutate({ code: i.code, on: true })}
              >
                {say("Put it back")}
              </button>
            )}
          </li>
        ))}
      </ul>
    </Fold>
  );
}
