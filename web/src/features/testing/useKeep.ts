/** Keep a reading: saved on this device at once, on the server as soon as it answers. */
import { useCallback, useState } from "react";

import { keep } from "../../api/queue";
import type { Instrument, KeptReading, Observation, Reading } from "../../api/types";
import { newId } from "../../app/names";
import { useVisitContext } from "../visit/context";

interface Keeping {
  busy: boolean;
  error: unknown;
  save: (
    instrument: Instrument,
    observation: Observation,
    again?: string,
  ) => Promise<KeptReading | null>;
  clear: () => void;
}

export function useKeep(): Keeping {
  const { id, picked, view } = useVisitContext();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const save = useCallback(
    async (instrument: Instrument, observation: Observation, again?: string) => {
      if (!picked) return null;
      const reading: Reading = {
        id: again ?? newId(),
        analyte: instrument.analyte,
        instrument,
        observation,
        made_at: new Date().toISOString(),
        by: view.visit.consultant,
        struck_at: null,
        struck_because: "",
        note: "",
      };
      setBusy(true);
      setError(null);
      try {
        return await keep({ visit: id, sample: picked.id, reading });
      } catch (e) {
        setError(e);
        return null;
      } finally {
        setBusy(false);
      }
    },
    [id, picked, view.visit.consultant],
  );
  return { busy, error, save, clear: () => setError(null) };
}
