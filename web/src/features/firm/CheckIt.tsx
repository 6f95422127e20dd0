/** A check of a kit in a standard of known value, kept with its day. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useReference } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { newId } from "../../app/names";
import { NumberField } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { today } from "../aftercare/dates";
import { say } from "../../app/language";

export function CheckIt({ k }: { k: Instrument }): ReactElement {
  const own = useReference().data?.analytes.find((a) => a.id === k.analyte)?.unit ?? "";
  const unit = k.unit || own;
  const [standard, setStandard] = useState<number | null>(null);
  const [shown, setShown] = useState<number | null>(null);
  const [id, setId] = useState(newId);
  const client = useQueryClient();
  const keep = useMutation({
    mutationFn: (made: { standard: number; shown: number }) =>
      data(
        api.PUT("/api/instruments/{key}/checks/{check_id}", {
          params: { path: { key: k.id, check_id: id } },
          body: { on: today(), ...made },
        }),
      ),
    onSuccess: () => {
      setId(newId());
      setShown(null);
      void client.invalidateQueries({ queryKey: ["instruments"] });
      void client.invalidateQueries({ queryKey: ["firm"] });
    },
  });
  const ready = standard !== null && shown !== null;
  return (
    <form
      className="border-[1.5px] border-ink bg-slip p-4 grid gap-3 my-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) keep.mutate({ standard, shown });
      }}
    >
      <p className="text-m">
        {say("Rinse it with the standard, dip it into fresh standard, wait until it is steady.")}
      </p>
      <div className="grid grid-cols-[200px_200px_auto] max-[700px]:grid-cols-1 gap-3 items-end">
        <NumberField
          label={say("The standard is")}
          unit={unit}
          value={standard}
          onCommit={setStandard}
        />
        <NumberField
          key={id}
          label={say("It shows")}
          unit={unit}
          value={shown}
          onCommit={setShown}
        />
        <button
          className="key justify-self-start"
          style={{ minHeight: 48 }}
          disabled={!ready || keep.isPending}
        >
          {say("Keep this check")}
        </button>
      </div>
      {keep.data && (
        <p role="status" className="font-semibold">
          {keep.data.sentence}
        </p>
      )}
      <Trouble error={keep.error} />
    </form>
  );
}
