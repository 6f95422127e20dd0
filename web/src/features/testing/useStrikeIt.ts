/** Strike a reading with its reason; for ten seconds it can be taken back. */
import { useState } from "react";

import { useStrike } from "../../api/hooks";
import { keep } from "../../api/queue";
import type { Reading } from "../../api/types";
import { newId } from "../../app/names";
import { useTakeBack } from "../../ui/TakeBack";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

export interface Striking {
  strike: (reading: Reading, because: string) => void;
  pending: boolean;
  error: unknown;
}

export function useStrikeIt(sample: string): Striking {
  const { id } = useVisitContext();
  const { mutate, isPending, error } = useStrike(id);
  const [wrong, setWrong] = useState<unknown>(null);
  const offer = useTakeBack();
  // what was struck stays so on record: the same observation is kept again under an id of its own
  const again = (r: Reading): void => {
    const reading = { ...r, id: newId(), struck_at: null, struck_because: "" };
    keep({ visit: id, sample, reading }).catch(setWrong);
  };
  const strike = (reading: Reading, because: string): void => {
    setWrong(null);
    mutate(
      { reading: reading.id, because },
      { onSuccess: () => offer(say("Crossed out: {because}", { because }), () => again(reading)) },
    );
  };
  return { strike, pending: isPending, error: error ?? wrong };
}
