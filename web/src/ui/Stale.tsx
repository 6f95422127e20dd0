/** A view whose server does not answer just now stands as it was, and says so. */
import type { ReactElement } from "react";

import { problemOf } from "../api/client";
import { say } from "../app/language";
import { clock } from "../app/when";
import { StateMark } from "./marks";

interface Read {
  data: unknown;
  error: unknown;
  dataUpdatedAt: number;
  isFetching: boolean;
  refetch: () => unknown;
}

/** Answers that say a thing is not there, or not ours, any more. */
const TAKEN = new Set([401, 403, 404, 410]);

/**
 * Why a view cannot stand: there is nothing to show, or the server says that it is not ours. A
 * server that does not answer just now takes nothing from the page.
 */
export function gone(read: Read): unknown {
  const problem = problemOf(read.error);
  if (!problem) return null;
  return read.data === undefined || TAKEN.has(problem.status) ? read.error : null;
}

/** Says since when nothing new came, over a view that stands as it was. */
export function Stale({ read }: { read: Read }): ReactElement | null {
  if (!read.error || gone(read) !== null) return null;
  const time = clock(new Date(read.dataUpdatedAt).toISOString());
  return (
    <div
      role="status"
      className={
        "fixed left-1/2 -translate-x-1/2 bottom-[84px] z-[55] flex items-center gap-3 bg-slip " +
        "border-[1.5px] border-ink pl-4 pr-2 py-1 rounded-[2px] max-w-[92vw]"
      }
    >
      <StateMark kind="no" size={20} />
      <span className="min-w-0">
        {say("The server does not answer. This stands as it was at {time}.", { time })}
      </span>
      <button
        className="key"
        style={{ minHeight: 46 }}
        disabled={read.isFetching}
        onClick={() => void read.refetch()}
      >
        {say("Try again")}
      </button>
    </div>
  );
}
