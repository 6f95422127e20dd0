/** Laboratory results from a file, with a preview. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import type { LabPreview } from "../../api/types";
import { upload } from "../../api/upload";
import { best } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { FileKey } from "../../ui/FileKey";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

type Row = LabPreview["rows"][number];

function headline(rows: Row[], bad: number): string {
  if (bad === 0) return say("{length} results, all can be used", { length: rows.length });
  return say("{bad} of {length} rows cannot be used: nothing is stored", {
    bad,
    length: rows.length,
  });
}

function Rows({ rows }: { rows: Row[] }): ReactElement {
  const { units } = useVisitContext();
  const said = (r: Row): string => (r.value ? best(r.analyte, r.value, units) : "");
  return (
    <ul className="max-h-[180px] overflow-auto scroll text-m" tabIndex={-1}>
      {rows.map((r) => (
        <li key={r.row} className="flex gap-2 py-1 border-b border-rule">
          <StateMark kind={r.error ? "no" : "done"} size={16} />
          <span className="w-14 text-ink-2">{say("row {row}", { row: r.row })}</span>
          <b className="w-44">{r.name}</b>
          <span>{r.error ? `${r.error} ${r.remedy}` : said(r)}</span>
        </li>
      ))}
    </ul>
  );
}

function LeaveOut({
  bad,
  without,
  onWithout,
}: {
  bad: number;
  without: boolean;
  onWithout: (w: boolean) => void;
}): ReactElement {
  return (
    <label className="flex gap-2 items-center min-h-11">
      <input
        type="checkbox"
        className="w-5 h-5"
        checked={without}
        onChange={(e) => onWithout(e.target.checked)}
      />
      {say("Leave out")} {bad === 1 ? say("the row") : say("the {bad} rows", { bad })}{" "}
      {say("that cannot be used")}
    </label>
  );
}

/** What the file holds, before anything of it is stored. */
function Preview({
  rows,
  busy,
  onStore,
  onLeave,
}: {
  rows: Row[];
  busy: boolean;
  onStore: (without: number[]) => void;
  onLeave: () => void;
}): ReactElement {
  const { picked } = useVisitContext();
  const [without, setWithout] = useState(false);
  const bad = rows.filter((r) => r.error);
  const left = without ? bad.map((r) => r.row) : [];
  const usable = bad.length === left.length;
  return (
    <div className="w-full border-[1.5px] border-ink bg-slip p-3">
      <p className="font-semibold mb-1">{headline(rows, bad.length)}</p>
      <Rows rows={rows} />
      {bad.length > 0 && bad.length < rows.length && (
        <LeaveOut bad={bad.length} without={without} onWithout={setWithout} />
      )}
      <div className="flex gap-2 mt-2">
        <button className="key ink" disabled={!usable || busy} onClick={() => onStore(left)}>
          {say("Store {x} for {name}", { x: rows.length - left.length, name: picked?.name })}
        </button>
        <button className="key bare" onClick={onLeave}>
          {say("Leave it")}
        </button>
      </div>
    </div>
  );
}

export function FromFile(): ReactElement {
  const { id, picked } = useVisitContext();
  const client = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const preview = useMutation({
    mutationFn: (f: File) => upload<LabPreview>("/api/laboratory/preview", f, "text/csv"),
    onMutate: (f) => setFile(f),
  });
  const leave = (): void => {
    setFile(null);
    preview.reset();
  };
  const bring = useMutation({
    mutationFn: ({ f, without }: { f: File; without: number[] }) => {
      const query = without.map((n) => `without=${n}`).join("&");
      const at = `/api/visits/${id}/samples/${picked?.id ?? ""}/lab-results?${query}`;
      return upload<LabPreview>(at, f, "text/csv");
    },
    onSuccess: () => {
      leave();
      void client.invalidateQueries({ queryKey: ["visit", id] });
    },
  });
  return (
    <div className="grid gap-2 justify-items-start">
      <FileKey
        label={say("Results file")}
        accept=".csv,text/csv"
        words={say("Results from a CSV file")}
        busy={preview.isPending}
        onFile={(f) => preview.mutate(f)}
      />
      <Trouble error={preview.error ?? bring.error} />
      {preview.data && file && (
        <Preview
          rows={preview.data.rows}
          busy={bring.isPending}
          onStore={(without) => bring.mutate({ f: file, without })}
          onLeave={leave}
        />
      )}
    </div>
  );
}
