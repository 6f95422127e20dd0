/** The slip that opens a figure's working: a torn piece of paper laid on the page. */
import { Popover } from "radix-ui";
import { X } from "lucide-react";
import type { ReactElement, ReactNode } from "react";

import type { Working } from "../api/types";
import { say } from "../app/language";

function Tear(): ReactElement {
  const n = 27;
  const d = Array.from({ length: n }, (_, i) => `L${i * 12 + 6},8L${(i + 1) * 12},0`).join("");
  return (
    <svg
      aria-hidden="true"
      viewBox={`-1 -3 ${n * 12 + 2} 13`}
      preserveAspectRatio="none"
      style={{
        position: "absolute",
        left: -1.5,
        bottom: -11,
        width: "calc(100% + 3px)",
        height: 14,
      }}
    >
      <path d={`M0,0${d}V-3H0Z`} fill="var(--slip)" />
      <path
        d={`M0,0${d}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.5}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}

export function WorkingTable({ working }: { working: Working }): ReactElement {
  return (
    <>
      <div className="sum">
        {working.rows.map((r, i) => (
          <div key={i} className="contents">
            <span className={r.total ? "tot" : ""}>{r.label}</span>
            <span className={`v ${r.total ? "tot" : ""}`}>{r.value}</span>
            <span className={`u ${r.total ? "tot" : ""}`}>{r.unit}</span>
          </div>
        ))}
      </div>
      {working.note !== "" && <p className="text-s mt-3 bg-yuzu-pale px-3 py-2">{working.note}</p>}
      <p className="text-s text-ink-2 mt-3">{working.formula}</p>
      <p className="text-s text-ink-2">{say("Source: {source}", { source: working.source })}</p>
    </>
  );
}

/** A figure that opens its slip. */
export function Opens({
  children,
  title,
  slip,
  className = "",
}: {
  children: ReactNode;
  title: string;
  slip: ReactNode;
  className?: string;
}): ReactElement {
  return (
    <Popover.Root>
      <Popover.Trigger className={`opens ${className}`}>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 w-[340px] max-w-[92vw] p-4 pb-7 text-[15px]"
          sideOffset={16}
          collisionPadding={24}
          aria-label={title}
        >
          <div className="flex items-center justify-between mb-2">
            <h3 className="text-h2">{title}</h3>
            <Popover.Close
              aria-label={say("Close")}
              className="grid place-items-center w-11 h-11 -mr-3 -mt-2"
            >
              <X size={20} />
            </Popover.Close>
          </div>
          <div className="max-h-[56vh] overflow-auto" tabIndex={0} role="group" aria-label={title}>
            {slip}
          </div>
          <Popover.Arrow width={14} height={14} asChild>
            <svg width="14" height="16" viewBox="0 0 14 16">
              <path d="M7,0V11" stroke="var(--ink)" strokeWidth="1.5" />
              <circle
                cx="7"
                cy="12"
                r="3.4"
                fill="var(--yuzu)"
                stroke="var(--ink)"
                strokeWidth="1.5"
              />
            </svg>
          </Popover.Arrow>
          <Tear />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export function OpensWorking({
  children,
  working,
}: {
  children: ReactNode;
  working: Working;
}): ReactElement {
  return (
    <Opens title={working.title} slip={<WorkingTable working={working} />}>
      {children}
    </Opens>
  );
}
