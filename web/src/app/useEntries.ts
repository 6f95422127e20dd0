/** Everything that can be found from where one stands: the visit at hand first, then the rest. */
import { useDeferredValue } from "react";
import { matchPath, useLocation } from "react-router";

import { useCatalogue, useMe, useVisits } from "../api/hooks";
import { ALL, useHomes } from "../features/logbook/hooks";
import { POCKETS } from "../features/testing/pockets";
import { APPLIANCES } from "./facts.generated";
import { found, type Entry } from "./finding";
import { STEPS } from "./names";
import { DAY, maySee, MORE } from "./places";
import { say } from "./language";

const LEAST = 2;

function ofVisit(path: string): Entry[] {
  const id = matchPath("/visits/:id/*", path)?.params.id;
  if (!id || id === "new") return [];
  const group = say("In this visit");
  const steps = STEPS.map(([key, name]) => ({
    id: `step-${key}`,
    group,
    name,
    sub: "step",
    to: `/visits/${id}/${key}`,
  }));
  const kits = POCKETS.map((p) => ({
    id: say("kit-{key}", { key: p.key }),
    group,
    name: p.name,
    sub: "test",
    to: `/visits/${id}/test?kit=${p.key}`,
  }));
  const card = {
    id: "card",
    group,
    name: say("Water card"),
    sub: "print",
    to: `/visits/${id}/card`,
  };
  const appliances = Object.entries(APPLIANCES).map(([kind, a]) => ({
    id: `appliance-${kind}`,
    group,
    name: a.name,
    sub: "card",
    to: `/visits/${id}/appliances/${kind}`,
  }));
  return [...steps, ...kits, card, ...appliances];
}

/** Entries that answer what is asked; homes come from the server once two letters are typed. */
export function useEntries(asked: string): Entry[] {
  const path = useLocation().pathname;
  const late = useDeferredValue(asked.trim());
  const manager = useMe().data?.role === "manager";
  const visits = useVisits().data ?? [];
  const items = useCatalogue().data ?? [];
  const searched = late.length >= LEAST;
  const homes = useHomes({ ...ALL, find: late }, searched).data;
  const views = [...DAY, ...MORE].filter((p) => maySee(p, manager));
  const local: Entry[] = [
    ...ofVisit(path),
    ...visits.map((v) => ({
      id: `visit-${v.id}`,
      group: say("Visits"),
      name: v.customer,
      sub: `${v.home}, ${v.place}`,
      to: `/visits/${v.id}`,
    })),
    ...views.map((p) => ({
      id: `view-${p.path}`,
      group: say("Views"),
      name: p.name,
      to: p.path,
    })),
    ...(searched
      ? items.map((i) => ({
          id: `item-${i.code}`,
          group: say("Items"),
          name: i.name,
          sub: i.maker,
          to: `/claims?item=${encodeURIComponent(i.code)}`,
        }))
      : []),
  ];
  // the server found these by rules of its own: they are not sifted again
  const known = (searched ? (homes?.homes ?? []) : []).slice(0, 7).map((h) => ({
    id: `home-${h.id}`,
    group: say("Homes"),
    name: h.customer,
    sub: `${h.home}, ${h.place}`,
    to: `/homes/${h.id}`,
  }));
  return [...found(local, asked), ...known];
}
