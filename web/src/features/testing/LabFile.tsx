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

export function FromFile(): ReactElement {
  const { id, picked, units } = useVisitContext();
  const client = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const preview = useMutation({
    mutationFn: (f: File) => upload<LabPreview>("/api/laboratory/preview", f, "text/csv"),
    onMutate: (f) => setFile(f),
  });
  const bad = (preview.data?.rows ?? []).filter((r) => r.error);
  const [without, setWithout] = useState(false);
  const left = without ? bad.map((r) => r.row) : [];
  const bring = useMutation({
    mutationFn: (f: File) =>
      upload<LabPreview>(
        `/api/visits/${id}/samples/${picked?.id ?? ""}/lab-results?${left.map((n) => `without=${n}`).join("&")}`,
        f,
        "text/csv",
      ),
    onSuccess: () => {
      setFile(null);
      preview.reset();
      void client.invalidateQueries({ queryKey: ["visit", id] });
    },
  });
  const p = preview.data;
  return (
    <div className="grid gap-2 justify-items-start">
      <FileKey
        label="Results file"
        accept=".csv,text/csv"
        words="Results from a CSV file"
        busy={preview.isPending}
        onFile={(f) => preview.mutate(f)}
      />
      <Trouble error={preview.error ?? bring.error} />
      {p && file && (
        <div className="w-full border-[1.5px] border-ink bg-slip p-3">
          <p className="font-semibold mb-1">
            {p.good
              ? `${p.rows.length} results, all can be used`
              : `${p.rows.filter((r) => r.error).length} of ${p.rows.length} rows cannot be used: nothing is stored`}
          </p>
          <ul className="max-h-[180px] overflow-auto scroll text-m" tabIndex={-1}>
            {p.rows.map((r) => (
              <li key={r.row} className="flex gap-2 py-1 border-b border-rule">
                <StateMark kind={r.error ? "no" : "done"} size={16} />
                <span className="w-14 text-ink-2">row {r.row}</span>
                <b className="w-44">{r.name}</b>
                <span>
                  {r.error
                    ? `${r.error} ${r.remedy}`
                    : r.value
                      ? best(r.analyte, r.value, units)
                      : ""}
                </span>
              </li>
            ))}
          </ul>
          {bad.length > 0 && bad.length < p.rows.length && (
            <label className="flex gap-2 items-center min-h-11">
              <input
                type="checkbox"
                className="w-5 h-5"
                checked={without}
                onChange={(e) => setWithout(e.target.checked)}
              />
              Leave out {bad.length === 1 ? "the row" : `the ${bad.length} rows`} that cannot be
              used
            </label>
          )}
          <div className="flex gap-2 mt-2">
            <button
              className="key"
              style={{ background: "var(--ink)", color: "var(--paper)" }}
              disabled={(!p.good && left.length === 0) || bring.isPending}
              onClick={() => bring.mutate(file)}
            >
              Store {p.rows.length - left.length} for {picked?.name}
            </button>
            <button
              className="key bare"
              onClick={() => {
                setFile(null);
                preview.reset();
              }}
            >
              Leave it
            </button>
          </div>
        </div>
      )}
    </div>
  );
}
