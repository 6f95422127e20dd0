/**
 * A calendar of one's own round, or of one home, by an address that is shown once and can be taken
 * back.
 */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { newId } from "../../app/names";
import { Trouble } from "../../ui/Trouble";
import { said } from "./dates";
import { say } from "../../app/language";

function Feeds({ home }: { home: string | null }): ReactElement {
  const client = useQueryClient();
  const [path, setPath] = useState("");
  const feeds = useQuery({ queryKey: ["feeds"], queryFn: () => data(api.GET("/api/feeds")) });
  const again = (): void => void client.invalidateQueries({ queryKey: ["feeds"] });
  const make = useMutation({
    mutationFn: () => data(api.POST("/api/feeds", { body: { id: newId(), home } })),
    onSuccess: (made) => {
      setPath(made.path);
      again();
    },
  });
  const revoke = useMutation({
    mutationFn: (id: string) => data(api.DELETE("/api/feeds/{id}", { params: { path: { id } } })),
    onSuccess: again,
  });
  const open = (feeds.data ?? []).filter((f) => f.revoked_at === null && f.home === home);
  return (
    <>
      <p className="text-m pb-2">
        {home === null
          ? say(
              "Your jobs and what falls due, for any calendar program. Whoever has the " +
                "address can ",
            ) + say("read it: give it to nobody.")
          : say(
              "What is planned and falls due at this home, for any calendar program. Whoever has ",
            ) +
            "the " +
            say("address can read it: give it to the household alone.")}
      </p>
      {path !== "" && (
        <label className="field">
          <span>{say("Put this address into your calendar; it is shown this once")}</span>
          <input
            className="input"
            readOnly
            value={window.location.origin + path}
            onFocus={(e) => e.target.select()}
          />
        </label>
      )}
      <button className="key mt-2" disabled={make.isPending} onClick={() => make.mutate()}>
        {say("New address")}
      </button>
      <Trouble error={make.error ?? revoke.error} />
      <ul>
        {open.map((f) => (
          <li key={f.id} className="flex justify-between items-center text-m border-b border-rule">
            {say("made")} {said(f.made_at.slice(0, 10))}
            <button className="key bare" onClick={() => revoke.mutate(f.id)}>
              {say("Take it back")}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

export function FeedKey({ home = null }: { home?: string | null }): ReactElement {
  return (
    <Popover.Root>
      <Popover.Trigger className="key bare">{say("Calendar")}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 w-[380px] max-w-[92vw] p-4 border-b-[1.5px] border-ink"
          sideOffset={10}
          collisionPadding={24}
          aria-label={say("Calendar address")}
        >
          <Feeds home={home} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
