/** Names of the technologies. */
export const KIND_NAMES: Record<string, string> = {
  system: "Drinking tap, complete", softener: "Softener", carbon: "Carbon", neutraliser: "Acid neutraliser", iron_filter: "Iron filter", sediment: "Sediment filter", uv: "UV", tannin: "Tannin filter", mixed_bed: "Mixed tannin bed", salt_free: "Salt-free conditioner",
  physical: "Physical conditioner", cartridge: "Adsorptive cartridge", membrane: "Membrane", distiller: "Distiller", pitcher: "Pitcher or counter filter", aeration: "Aeration", nitrate: "Nitrate unit", arsenic: "Arsenic unit", chlorinator: "Chlorinator",
  regulator: "Pressure regulator", expansion: "Expansion device", bypass: "Outdoor bypass", booster: "Booster pump", polish: "Mineral polish",
};
