/** Who changed what: the audit trail by page, found by name, deed and day, and as a table. */
import { useInfiniteQuery } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { TextField } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { DayField } from "../in-place/DayField";
import type { AuditPage } from "./hooks";
import { moment } from "../../app/when";
import { say } from "../../app/language";

interface Wanted {
  who: string;
  action: string;
  since: string | null;
}

function query({ who, action, since }: Wanted): { who: string; action: string; since?: string } {
  return { who, action, ...(since === null ? {} : { since }) };
}

function Line({ line }: { line: AuditPage["lines"][number] }): ReactElement {
  const told = line.before !== "" || line.after !== "";
  return (
    <li className="border-b border-rule py-2 text-m">
      <div className="grid grid-cols-[170px_200px_minmax(0,1fr)] gap-3 max-[900px]:grid-cols-1">
        <span className="num">{moment(line.at)}</span>
        <b>{line.who}</b>
        <span className="min-w-0 break-words">
          {line.action}
          {line.fields.length > 0 && `: ${line.fields.join(", ")}`}
        </span>
      </div>
      {told && (
        <details>
          <summary className="min-h-11 flex items-center underline cursor-pointer">
            {say("What it was, and became")}
          </summary>
          <pre className="whitespace-pre-wrap break-words text-s m-0">
            {line.before !== "" && say("was {before}\n", { before: line.before })}
            {line.after !== "" && say("became {after}", { after: line.after })}
          </pre>
        </details>
      )}
    </li>
  );
}

export function Trail(): ReactElement {
  const [wanted, setWanted] = useState<Wanted>({ who: "", action: "", since: null });
  const pages = useInfiniteQuery({
    queryKey: ["audit", wanted],
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) =>
      data(
        api.GET("/api/audit", {
          params: {
            query: { ...query(wanted), ...(pageParam === null ? {} : { before: pageParam }) },
          },
        }),
      ),
    getNextPageParam: (last: AuditPage) => last.next,
  });
  const lines = pages.data?.pages.flatMap((p) => p.lines) ?? [];
  const table = `/api/audit/table.csv?${new URLSearchParams(query(wanted)).toString()}`;
  return (
    <>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-4 items-start">
        <TextField
          label={say("Who")}
          value={wanted.who}
          hint={say("part of a name; Enter")}
          onCommit={(who) => setWanted({ ...wanted, who })}
        />
        <TextField
          label={say("What was done")}
          value={wanted.action}
          hint={say("as in changed, accepted, joined")}
          onCommit={(action) => setWanted({ ...wanted, action })}
        />
        <DayField
          label={say("Since")}
          hint={say("empty: from the beginning")}
          value={wanted.since}
          onCommit={(since) => setWanted({ ...wanted, since })}
        />
        <a className="key self-end" href={table} download>
          {say("As a table")}
        </a>
      </div>
      {pages.isPending && <Waiting what={say("Fetching the trail.")} />}
      <Trouble error={pages.error} again={() => void pages.refetch()} />
      {pages.isSuccess && lines.length === 0 && (
        <p className="text-l">{say("Nothing of this kind.")}</p>
      )}
      <ul>
        {lines.map((l) => (
          <Line key={l.id} line={l} />
        ))}
      </ul>
      {pages.hasNextPage && (
        <button
          className="key"
          disabled={pages.isFetchingNextPage}
          onClick={() => void pages.fetchNextPage()}
        >
          {say("Earlier ones")}
        </button>
      )}
    </>
  );
}
