/**
 * What stands there already, in the meaning of the visit: judged, drawn behind, held against
 * buying.
 */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { Link } from "react-router";

import { api, data } from "../../api/client";
import { usePutOption } from "../../api/hooks";
import type { Judged, Option } from "../../api/types";
import { newId } from "../../app/names";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { useDrawBehind } from "./useDrawBehind";
import { JudgedCard, WAY_WORDS } from "./JudgedCard";
import { say } from "../../app/language";

export function keeping(j: Judged, how: string): Option {
  return {
    id: newId(),
    name: `${WAY_WORDS[how] ?? how}: ${j.name}`,
    stages: [],
    note: "",
    keeps: [{ device: j.id, how: how as "keep" | "service" | "set_right" }],
  };
}

function has(options: Option[], j: Judged, how: string): boolean {
  return options.some(
    (o) => o.stages.length === 0 && o.keeps.some((k) => k.device === j.id && k.how === how),
  );
}

/** Looked after from now on, whoever fitted it: its parts fall due among those of the firm. */
function TakeIntoCare({ device }: { device: string }): ReactElement {
  const { id } = useVisitContext();
  const client = useQueryClient();
  const take = useMutation({
    mutationFn: () =>
      data(api.POST("/api/visits/{id}/care", { params: { path: { id } }, body: { device } })),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["jobs"] });
      void client.invalidateQueries({ queryKey: ["due"] });
    },
  });
  if (take.data)
    return (
      <Link className="key bare" to={`/jobs/${take.data.id}?part=care`}>
        {say("In our care")}
      </Link>
    );
  return (
    <>
      <button className="key bare" disabled={take.isPending} onClick={() => take.mutate()}>
        {say("Take it into care")}
      </button>
      <Trouble error={take.error} />
    </>
  );
}

export function InPlaceSection(): ReactElement | null {
  const { id, view } = useVisitContext();
  const put = usePutOption(id);
  const { draw, drawing, error } = useDrawBehind();
  const judged = view.assessment.in_place;
  const options = view.visit.options;
  if (judged.length === 0) return null;
  return (
    <section aria-label={say("What stands there already")} className="mb-5">
      <h2 className="mb-1">{say("What stands there already")}</h2>
      <ul>
        {judged.map((j) => (
          <JudgedCard key={j.id} j={j} currency={view.visit.settings.currency}>
            {[
              ...(j.sample == null
                ? [
                    <button
                      key="draw"
                      className="key"
                      disabled={drawing}
                      onClick={() => draw(j.id, j.name)}
                    >
                      {say("Draw a glass behind it")}
                    </button>,
                  ]
                : []),
              ...j.ways
                .filter((w) => w !== "keep")
                .map((w) => (
                  <button
                    key={w}
                    className="key"
                    disabled={put.isPending || options.length >= 6 || has(options, j, w)}
                    onClick={() => put.mutate({ option: keeping(j, w) })}
                  >
                    {has(options, j, w)
                      ? say("{x}: in the comparison", { x: WAY_WORDS[w] ?? w })
                      : say("Compare: {toLowerCase}", {
                          toLowerCase: (WAY_WORDS[w] ?? w).toLowerCase(),
                        })}
                  </button>
                )),
              <a
                key="check"
                className="key bare"
                href={`/api/visits/${id}/in-place/${encodeURIComponent(j.id)}/check`}
              >
                {say("Filter check as a page (PDF)")}
              </a>,
              <TakeIntoCare key="care" device={j.id} />,
            ]}
          </JudgedCard>
        ))}
      </ul>
      <Trouble error={put.error ?? error} />
    </section>
  );
}
