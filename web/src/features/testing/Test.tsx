/** Test: the kit roll, the station at hand, and what it explains so far. */
import type { ReactElement } from "react";
import { useSearchParams } from "react-router";

import { DropsStation } from "./DropsStation";
import { Explains } from "./Findings";
import { KitRoll } from "./KitRoll";
import { MeterStation } from "./MeterStation";
import { POCKETS } from "./pockets";

function Station({ kit }: { kit: string }): ReactElement {
  switch (kit) {
    case "hardness": return <DropsStation analyte="hardness" title="Hardness, by drops" />;
    default: return <MeterStation />;
  }
}

export function Test(): ReactElement {
  const [search] = useSearchParams();
  const asked = search.get("kit");
  const kit = POCKETS.some((p) => p.key === asked) ? asked! : "tds";
  return (
    <div className="h-full flex flex-col min-w-0">
      <KitRoll current={kit} />
      <div className="flex-1 min-h-0 pt-4 grid wide:grid-cols-[minmax(0,1fr)_260px] gap-x-8 gap-y-6 items-start content-start" role="tabpanel" aria-labelledby={`kit-${kit}`}>
        <Station kit={kit} />
        <div className="max-[1099px]:pl-[224px]"><Explains /></div>
      </div>
    </div>
  );
}
