/**
 * Kits, catalogue, prices and limits of the firm: data with its source and year. A manager changes
 * them; old visits keep those of their day.
 */
import type { ReactElement } from "react";

import { useFirm, useMe } from "../../api/hooks";
import { Head } from "../../app/Shell";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Catalogue } from "./Catalogue";
import { Figures } from "./Figures";
import { Kits } from "./Kits";
import { Limits } from "./Limits";
import { say } from "../../app/language";

/**
 * Scroll the page's own scroller, and nothing around it, to a section; the next Tab goes on from
 * there.
 */
function jump(to: string): void {
  const section = document.getElementById(to);
  const scroller = section?.closest(".scroll");
  if (!section || !scroller) return;
  scroller.scrollBy({
    top: section.getBoundingClientRect().top - scroller.getBoundingClientRect().top - 8,
  });
  section.tabIndex = -1;
  section.focus({ preventScroll: true });
}

function LimitChanged(): ReactElement {
  return (
    <p className="bg-yuzu-pale px-4 py-2 flex gap-3 items-center flex-wrap">
      {say(
        "A published limit changed, and your firm has its own. Take the new one, or keep yours.",
      )}
      <button className="key" onClick={() => jump("limits")}>
        {say("Go to it")}
      </button>
    </p>
  );
}

export function FirmPage(): ReactElement {
  const firm = useFirm();
  const me = useMe();
  const may = me.data?.role === "manager";
  return (
    <div className="screen plain">
      <Head title={say("Kits, catalog, limits")} sub={firm.data?.name} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-10"
          tabIndex={0}
          role="group"
          aria-label={say("Kits, catalog and limits")}
        >
          <div className="max-w-[1080px] mx-auto grid grid-cols-1 [&>*]:min-w-0 gap-8 pt-4">
            <h1>{say("Kits, catalog and limits")}</h1>
            <nav className="flex gap-3 flex-wrap" aria-label={say("On this page")}>
              {[
                ["kits", say("Kits and meters")],
                ["catalogue", say("Catalog")],
                ["figures", say("Prices and settings")],
                ["limits", say("Limits")],
              ].map(([to, name]) => (
                <a
                  key={to}
                  className="key"
                  href={`#${to}`}
                  onClick={(e) => {
                    e.preventDefault();
                    jump(to!);
                  }}
                >
                  {name}
                </a>
              ))}
            </nav>
            {!may && <p className="text-ink-2">{say("A manager of the firm may change these.")}</p>}
            {firm.isPending && <Waiting what={say("Fetching them.")} />}
            <Trouble error={firm.error} />
            {may && !!firm.data?.questions.length && <LimitChanged />}
            {firm.data && <Kits firm={firm.data} may={may} />}
            {firm.data && <Catalogue may={may} currency={firm.data.settings.currency} />}
            {firm.data && (
              <Figures key={`figures-${firm.data.version}`} firm={firm.data} may={may} />
            )}
            {firm.data && <Limits key={firm.data.version} firm={firm.data} may={may} />}
          </div>
        </div>
      </main>
    </div>
  );
}
