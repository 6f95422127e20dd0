/** A number that opens the homes behind it. */
import { useMutation } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState, type ReactElement, type ReactNode } from "react";
import { Link } from "react-router";

import type { components } from "../../api/schema.generated";
import { Trouble } from "../../ui/Trouble";
import { say } from "../../app/language";

type Behind = components["schemas"]["TrackBehind"];

export function BehindKey({
  label,
  load,
  to,
  children,
}: {
  /** What the number is, for who hears it. */
  label: string;
  load: () => Promise<Behind>;
  /** Where a line leads, by its id. */
  to: (id: string) => string;
  children: ReactNode;
}): ReactElement {
  const [open, setOpen] = useState(false);
  const behind = useMutation({ mutationFn: load });
  return (
    <Popover.Root
      open={open}
      onOpenChange={(on) => {
        setOpen(on);
        if (on) behind.mutate();
      }}
    >
      <Popover.Trigger className="key bare -ml-2" aria-label={label}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className={
            "slip z-50 max-h-[min(420px,var(--radix-popover-content-available-height))] " +
            "overflow-auto p-3 grid gap-1 w-[min(400px,92vw)]"
          }
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          collisionPadding={16}
          aria-label={label}
        >
          {behind.isPending && <span className="text-m">{say("Looking.")}</span>}
          <Trouble error={behind.error} again={() => behind.mutate()} />
          {behind.data?.lines.length === 0 && (
            <span className="text-m">{say("None of these homes is yours.")}</span>
          )}
          {behind.data?.lines.map((x) => (
            <Link
              key={x.id}
              className="key bare justify-start text-left whitespace-normal"
              to={to(x.id)}
            >
              {[x.customer, x.place].filter(Boolean).join(", ")}
            </Link>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export const homesAre = (n: number): string => (n === 1 ? say("1 home") : say("{n} homes", { n }));
