/** A quantity typed in the units that this device shows; kept in US units as everywhere. */
import type { ReactElement } from "react";

import { CM_PER_IN, KPA_PER_PSI, L_PER_GAL } from "../app/facts.generated";
import { useUnits } from "../app/units";
import { NumberField } from "./fields";

const METRIC: Record<string, [string, number]> = {
  gpm: ["L/min", L_PER_GAL],
  psi: ["kPa", KPA_PER_PSI],
  in: ["cm", CM_PER_IN],
  "gal/day": ["L/day", L_PER_GAL],
};

export function QuantityField({
  unit,
  value,
  onCommit,
  ...rest
}: {
  label: string;
  unit: string;
  value: number | null;
  hint?: string;
  onCommit: (v: number | null) => void;
}): ReactElement {
  const [name, factor] = (useUnits() === "metric" ? METRIC[unit] : undefined) ?? [unit, 1];
  return (
    <NumberField
      {...rest}
      unit={name}
      value={value === null ? null : Math.round(value * factor * 100) / 100}
      onCommit={(n) => onCommit(n === null ? null : n / factor)}
    />
  );
}
