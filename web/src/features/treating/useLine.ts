/** Everything a line is changed by; what is taken out can be taken back. */
import { useDropOption, useEditOption, usePutOption } from "../../api/hooks";
import type { Item, Option } from "../../api/types";
import { newId } from "../../app/names";
import { useTakeBack } from "../../ui/TakeBack";
import { useVisitContext } from "../visit/context";
import { LETTER } from "./LineTabs";
import { say } from "../../app/language";

type Choice = Option["stages"][number];

export const stageOf = (code: string): Choice => ({
  item: code,
  overrides: {},
  position: null,
  reason: "",
  fitter: "firm",
  terms: "buy",
});

/** Another item is had on the same terms where the firm lets it so; else it is bought. */
const hadAs = (s: Choice, to: Item): Pick<Choice, "terms"> => ({
  terms: to.lets.some((l) => l.kind === s.terms) ? s.terms : "buy",
});

export function lineOf(name: string, stages: Choice[] = []): Option {
  return { id: newId(), name, stages, note: "", keeps: [] };
}

export interface LineEdits {
  busy: boolean;
  error: Error | null;
  edit: (how: (o: Option) => Option) => void;
  put: (o: Option, then?: () => void) => void;
  add: (item: Item) => void;
  swap: (from: string, to: Item) => void;
  takeOut: (code: string) => void;
  fresh: (then: () => void) => void;
  copy: () => void;
  away: () => void;
}

export function useLine(option: Option | undefined, choose: (id: string) => void): LineEdits {
  const { id, view } = useVisitContext();
  const putting = usePutOption(id);
  const changing = useEditOption(id);
  const dropping = useDropOption(id);
  const takeBack = useTakeBack();
  const options = view.visit.options;
  const edit = (how: (o: Option) => Option): void => {
    if (option) changing.mutate({ option, version: view.versions[option.id] ?? 1, edit: how });
  };
  const put = (o: Option, then?: () => void): void =>
    putting.mutate(
      { option: o },
      {
        onSuccess: () => {
          choose(o.id);
          then?.();
        },
      },
    );
  return {
    busy: putting.isPending,
    error: changing.error ?? putting.error ?? dropping.error,
    edit,
    put,
    add: (item) => {
      if (!option) put(lineOf(item.name, [stageOf(item.code)]));
      else
        edit((o) => ({
          ...o,
          name: o.stages.length > 0 ? o.name : item.name,
          stages: [...o.stages, stageOf(item.code)],
        }));
    },
    swap: (from, to) =>
      edit((o) => ({
        ...o,
        stages: o.stages.map((s) =>
          s.item === from ? { ...s, item: to.code, ...hadAs(s, to) } : s,
        ),
      })),
    takeOut: (code) => {
      const gone = option?.stages.find((s) => s.item === code);
      edit((o) => ({ ...o, stages: o.stages.filter((s) => s.item !== code) }));
      if (gone)
        takeBack(say("Taken out of “{x}”.", { x: option?.name ?? "" }), () =>
          edit((o) => ({ ...o, stages: [...o.stages.filter((s) => s.item !== code), gone] })),
        );
    },
    fresh: (then) => put(lineOf(say("Line {length}", { length: LETTER(options.length) })), then),
    copy: () => {
      if (option)
        put({ ...option, id: newId(), name: say("{name}, other", { name: option.name }) });
    },
    away: () => {
      if (!option) return;
      dropping.mutate(option.id);
      takeBack(say("“{name}” was taken away.", { name: option.name }), () =>
        put({ ...option, id: newId() }),
      );
    },
  };
}
