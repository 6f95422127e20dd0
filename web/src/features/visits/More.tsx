/** What is needed less often than the day: outbox, kits, people, account, and the way out. */
import { LogOut, Menu } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactElement } from "react";
import { Link } from "react-router";

import { maySee, MORE } from "../../app/places";
import { say } from "../../app/language";

export function More({
  manager,
  onLeave,
}: {
  manager: boolean;
  onLeave: () => void;
}): ReactElement {
  return (
    <Popover.Root>
      <Popover.Trigger className="key bare">
        <Menu size={20} aria-hidden="true" /> {say("More")}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 p-3 grid gap-1 w-[240px]"
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          sideOffset={8}
          collisionPadding={16}
          aria-label={say("More")}
        >
          {MORE.filter((p) => maySee(p, manager)).map(({ path, name }) => (
            <Link
              key={path}
              className={
                "flex items-center min-h-12 px-3 text-ink font-semibold no-underline border-b " +
                "border-rule"
              }
              to={path}
            >
              {name}
            </Link>
          ))}
          <button className="key bare justify-start" onClick={onLeave}>
            <LogOut size={20} aria-hidden="true" /> {say("Sign out")}
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
