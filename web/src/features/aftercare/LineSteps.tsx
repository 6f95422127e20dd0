/** The steps of a line before it is sold, to be talked through and printed. */
import { useQuery } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { useParams, useSearchParams } from "react-router";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { currentUnits } from "../../app/units";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Printed } from "../card/Printed";
import type { Sheet } from "./hooks";
import { SheetPicker } from "./SheetPicker";
import { PlainSheet } from "./Steps";
import { say } from "../../app/language";

const long = (s: Sheet): string =>
  s.steps.length === 1 ? say("1 step") : say("{length} steps", { length: s.steps.length });

function Sheets({ of }: { of: components["schemas"]["LineSteps"] }): ReactElement {
  const [asked, ask] = useSearchParams();
  const sheet = of.sheets.find((s) => s.key === asked.get("sheet")) ?? of.sheets[0];
  if (!sheet) return <p className="text-l py-4">{say("This system has no steps of its own.")}</p>;
  return (
    <SheetPicker
      sheets={of.sheets}
      picked={sheet.key}
      note={long}
      onPick={(key) => ask({ sheet: key }, { replace: true })}
    >
      <PlainSheet sheet={sheet} />
      {sheet.purpose === "disinfect" && (
        <p className="text-m text-ink-2">
          {say("Counted for what usually holds water in a home; measured there once it is a job.")}
        </p>
      )}
    </SheetPicker>
  );
}

export function LineSteps(): ReactElement {
  const { id = "", option = "" } = useParams();
  const steps = useQuery({
    queryKey: ["visit", id, "steps", option],
    queryFn: () =>
      data(
        api.GET("/api/visits/{id}/options/{option_id}/steps", {
          params: { path: { id, option_id: option }, query: currentUnits() },
        }),
      ),
  });
  const at = steps.data;
  return (
    <Printed
      title={at ? say("Steps: {name}", { name: at.name }) : say("Steps")}
      sub={at ? [at.home, at.place].filter(Boolean).join(", ") : ""}
      back={`/visits/${id}/line`}
      wide
    >
      {steps.isPending && <Waiting what={say("Writing the steps.")} />}
      <Trouble error={steps.error} again={() => void steps.refetch()} />
      {at && <Sheets of={at} />}
    </Printed>
  );
}
