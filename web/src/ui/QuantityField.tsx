/** A quantity typed in the units that this device shows; kept in US units as everywhere. */
import type { ReactElement } from "react";

import { GAL_PER_M3, METRIC } from "../app/facts.generated";
import { useShownUnits } from "../app/units";
import { NumberField } from "./fields";

/** Units of fields that the core's sentences have no name for. */
const MORE: Record<string, [unit: string, factor: number]> = {
  "a 1,000 gal": ["a m³", GAL_PER_M3 / 1000],
  "gpm, a building’s": ["m³/h", 60 / GAL_PER_M3],
};

/** A US unit as it is shown, and how many of what is shown one of it is. */
export function shownAs(unit: string, units: string | null): [unit: string, factor: number] {
  const us = unit.split(",")[0] ?? unit;
  const told = units === "metric" ? (MORE[unit] ?? METRIC[unit]) : undefined;
  return told ?? [unit in MORE && unit.startsWith("gpm") ? us : unit, 1];
}

const DIGITS = 4;
/** A converted number without its tail: as many figures as somebody would type. */
const written = (value: number, factor: number): number =>
  factor === 1 ? value : Number((value * factor).toPrecision(DIGITS));

export function QuantityField({
  unit,
  value,
  onCommit,
  min,
  max,
  ...rest
}: {
  label: string;
  unit: string;
  value: number | null;
  hint?: string;
  min?: number;
  max?: number;
  onCommit: (v: number | null) => void;
}): ReactElement {
  const [name, factor] = shownAs(unit, useShownUnits());
  return (
    <NumberField
      {...rest}
      {...(min === undefined ? {} : { min: written(min, factor) })}
      {...(max === undefined ? {} : { max: written(max, factor) })}
      unit={name}
      value={value === null ? null : written(value, factor)}
      onCommit={(n) => onCommit(n === null ? null : n / factor)}
    />
  );
}
