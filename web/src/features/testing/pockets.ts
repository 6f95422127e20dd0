/** The pockets of the kit roll, in the order of a visit. */
export interface Pocket {
  key: string;
  name: string;
  drawn: string;
  /** Analytes a pocket's instruments read; the first one with a value is shown. */
  analytes: string[];
  /** How many of them make the pocket done. */
  needs: number;
}

export const POCKETS: Pocket[] = [
  { key: "tds", name: "TDS meter", drawn: "tds", analytes: ["tds"], needs: 1 },
  { key: "hardness", name: "Hardness", drawn: "hardness", analytes: ["hardness"], needs: 1 },
];
