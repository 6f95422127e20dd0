/** A part that is folded away until it is wanted, with a sign that it opens. */
import { ChevronRight } from "lucide-react";
import type { ReactElement, ReactNode } from "react";

export function Fold({
  title,
  sub,
  open = false,
  className = "",
  children,
}: {
  title: ReactNode;
  sub?: ReactNode;
  open?: boolean;
  className?: string;
  children: ReactNode;
}): ReactElement {
  return (
    <details className={`group ${className}`} open={open}>
      <summary className="min-h-[44px] flex gap-2 items-center cursor-pointer list-none">
        <ChevronRight
          size={20}
          className="shrink-0 group-open:rotate-90 motion-safe:transition-transform"
          aria-hidden="true"
        />
        <b className="font-d text-l">{title}</b>
        {sub !== undefined && <span className="text-m text-ink-2">{sub}</span>}
      </summary>
      {children}
    </details>
  );
}
