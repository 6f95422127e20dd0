/** The firm's people: who is in, who is invited, what scripts may, and who changed what. */
import type { ReactElement } from "react";
import { useSearchParams } from "react-router";

import { useMe } from "../../api/hooks";
import { Head } from "../../app/Shell";
import { Seg } from "../../ui/fields";
import { Everybody } from "./Everybody";
import { Scripts } from "./Scripts";
import { Trail } from "./Trail";
import { spoken, say } from "../../app/language";

const PARTS = spoken([
  { value: "people", name: "People" },
  { value: "scripts", name: "Tokens for scripts" },
  { value: "audit", name: "Audit trail" },
]);

export function PeoplePage(): ReactElement {
  const me = useMe();
  const [search, setSearch] = useSearchParams();
  const part = search.get("part") ?? "people";
  const manager = me.data?.role === "manager";
  return (
    <div className="screen plain">
      <Head title={say("People")} {...(me.data ? { sub: me.data.firm } : {})} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10"
          tabIndex={0}
          role="group"
          aria-label={say("People")}
        >
          <div className="max-w-[1080px] mx-auto pt-4 grid grid-cols-1 gap-4 [&>*]:min-w-0">
            <h1>{say("People")}</h1>
            {manager ? (
              <>
                <Seg
                  label={say("What to look at")}
                  hideLabel
                  value={part}
                  choices={PARTS}
                  onChange={(p) => setSearch({ part: p }, { replace: true })}
                />
                {part === "people" && <Everybody />}
                {part === "scripts" && <Scripts />}
                {part === "audit" && <Trail />}
              </>
            ) : (
              <p className="text-l">{say("A manager of the firm looks after its people.")}</p>
            )}
          </div>
        </div>
      </main>
    </div>
  );
}
