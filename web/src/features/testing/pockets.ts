import { spoken } from "../../app/language";
/**
 * The pockets of the kit roll, in the order of a visit. An instrument of the firm lies in the
 * pocket of its analyte.
 */
export interface Pocket {
  key: string;
  name: string;
  drawn: string;
  /** Analytes a pocket's instruments read; the first one with a value is shown. */
  analytes: string[];
  /** Those of them that make the pocket done. */
  needs: string[];
}

export const POCKETS: Pocket[] = spoken([
  { key: "tds", name: "TDS meter", drawn: "tds", analytes: ["tds"], needs: ["tds"] },
  {
    key: "hardness",
    name: "Hardness",
    drawn: "hardness",
    analytes: ["hardness", "calcium"],
    needs: ["hardness"],
  },
  {
    key: "chlorine",
    name: "Chlorine",
    drawn: "chlorine",
    analytes: ["chlorine_free", "chlorine_total"],
    needs: ["chlorine_free", "chlorine_total"],
  },
  {
    key: "iron",
    name: "Iron",
    drawn: "iron",
    analytes: ["iron", "iron_ferrous", "manganese", "hydrogen_sulfide"],
    needs: ["iron"],
  },
  {
    key: "tannin",
    name: "Tannin",
    drawn: "tannin",
    analytes: ["tannin", "turbidity"],
    needs: ["tannin"],
  },
  {
    key: "colour",
    name: "Color",
    drawn: "colour",
    analytes: ["colour", "noticed"],
    needs: ["colour"],
  },
  {
    key: "ph",
    name: "pH",
    drawn: "ph",
    analytes: ["ph", "alkalinity", "temperature"],
    needs: ["ph", "alkalinity", "temperature"],
  },
  {
    key: "flow",
    name: "Flow",
    drawn: "flow",
    analytes: ["flow", "pressure_static", "pressure_running"],
    needs: ["flow"],
  },
  { key: "lab", name: "Laboratory", drawn: "lab", analytes: [], needs: [] },
]);
