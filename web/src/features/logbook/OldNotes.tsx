/** Old notes from a table: looked at row by row, then brought in, all or nothing. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState, type ReactElement } from "react";

import { upload } from "../../api/upload";
import type { components } from "../../api/schema.generated";
import { StateMark } from "../../ui/marks";
import { FileKey } from "../../ui/FileKey";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

type Seen = components["schemas"]["OldNotes"];
const KIND = "text/csv";

function Rows({ seen }: { seen: Seen }): ReactElement {
  const wrong = seen.rows.filter((r) => r.error !== "");
  const shown = [...wrong, ...seen.rows.filter((r) => r.error === "")].slice(0, 200);
  return (
    <ul className="text-m">
      {shown.map((r) => (
        <li key={r.row} className="flex gap-3 border-b border-rule py-2 items-start">
          <StateMark kind={r.error === "" ? "done" : "no"} size={17} />
          <span className="flex-1 min-w-0">
            <b>{say("Row {row}: {customer}", { row: r.row, customer: r.customer })}</b>
            {r.house !== "" && `, ${r.house}`}
            {r.error === "" ? (
              <span className="text-ink-2">
                {r.on != null ? `, ${r.on}, ` : ", "}
                {r.readings === 1
                  ? say("1 reading")
                  : say("{readings} readings", { readings: r.readings })}
              </span>
            ) : (
              <span className="block">
                {r.where}: {r.error} {r.remedy}
              </span>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Body({ onDone }: { onDone: () => void }): ReactElement {
  const [file, setFile] = useState<File | null>(null);
  const client = useQueryClient();
  const look = useMutation({
    mutationFn: (f: File) => upload<Seen>("/api/homes/preview", f, KIND),
  });
  const bring = useMutation({
    mutationFn: (f: File) => upload<Seen>("/api/homes/import", f, KIND),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["homes"] });
      onDone();
    },
  });
  const wrong = look.data?.rows.filter((r) => r.error !== "").length ?? 0;
  return (
    <>
      <p className="text-m text-ink-2 mb-3">
        {say(
          "A row a visit, the columns named in the first row: customer, house, place, source, " +
            "date, and each test with its unit, as in “hardness [gpg]”, “iron [mg/L]”, " +
            "“pH”. How it was measured is not known: a tenth of each reading is taken as " +
            "its accuracy.",
        )}
      </p>
      <div className="flex gap-3 flex-wrap mb-3">
        <FileKey
          label={say("Table of old notes")}
          accept=".csv,text/csv"
          words={file ? say("Another table") : say("Choose a table (CSV)")}
          busy={look.isPending}
          onFile={(f) => {
            setFile(f);
            look.mutate(f);
          }}
        />
        {file && look.data?.good === true && (
          <button className="key" disabled={bring.isPending} onClick={() => bring.mutate(file)}>
            {say("Bring {x} in", {
              x: look.data.rows.length === 1 ? "1 row" : `${look.data.rows.length} rows`,
            })}
          </button>
        )}
      </div>
      <Trouble error={look.error ?? bring.error} />
      {wrong > 0 && (
        <p role="status" className="font-semibold mb-2">
          {say("{x} not good yet: nothing is stored until all are.", {
            x: wrong === 1 ? "1 row is" : `${wrong} rows are`,
          })}
        </p>
      )}
      {look.data && <Rows seen={look.data} />}
    </>
  );
}

export function OldNotes(): ReactElement {
  const [open, setOpen] = useState(false);
  return (
    <Sheet
      title={say("Bring old notes in")}
      width={760}
      open={open}
      onOpen={setOpen}
      trigger={<Dialog.Trigger className="key bare">{say("Old notes")}</Dialog.Trigger>}
    >
      <Body onDone={() => setOpen(false)} />
    </Sheet>
  );
}
