/** Written by ./zesty client from the core: change it there. */
export interface Procedure {
  kind: string;
  title: string;
  steps: string[];
  analyte: string;
  caution: string;
  reagent: boolean;
}
export interface Asked {
  field: string;
  question: string;
  unit: string;
  most: number;
  choices: string[];
}
export const ASKED: Record<string, Asked> = {
  "space.drain": {
    "field": "drain",
    "question": "Is a drain within reach?",
    "unit": "",
    "most": 0.0,
    "choices": []
  },
  "space.socket": {
    "field": "socket",
    "question": "Is an outlet within reach?",
    "unit": "",
    "most": 0.0,
    "choices": []
  },
  "space.headroom": {
    "field": "headroom_in",
    "question": "Free height, in a crawl space from ground to joist",
    "unit": "in",
    "most": 1000.0,
    "choices": []
  },
  "space.floor": {
    "field": "floor_ok",
    "question": "Will the floor carry it when full?",
    "unit": "",
    "most": 0.0,
    "choices": []
  },
  "brine.forbidden": {
    "field": "brine_forbidden",
    "question": "Is brine forbidden at this place?",
    "unit": "",
    "most": 0.0,
    "choices": []
  },
  "pipe.material": {
    "field": "pipe_material",
    "question": "The pipe that is cut is of",
    "unit": "",
    "most": 0.0,
    "choices": [
      "copper",
      "galvanized steel",
      "plastic",
      "lead"
    ]
  },
  "well.low_yield": {
    "field": "low_yield",
    "question": "Did the well ever run low?",
    "unit": "",
    "most": 0.0,
    "choices": []
  },
  "pipe.service": {
    "field": "service_line",
    "question": "The supply’s line to the house is of",
    "unit": "",
    "most": 0.0,
    "choices": [
      "copper",
      "galvanized steel",
      "plastic",
      "lead"
    ]
  },
  "flow.larger": {
    "field": "told_peak_gpm",
    "question": "Peak flow as its designer says",
    "unit": "gpm",
    "most": 500,
    "choices": []
  },
  "well.backwash": {
    "field": "pump_gpm",
    "question": "The pump delivers",
    "unit": "gpm",
    "most": 500,
    "choices": []
  },
  "pressure.least": {
    "field": "running_psi",
    "question": "Pressure, a tap open",
    "unit": "psi",
    "most": 300,
    "choices": []
  }
};
export const SHOWN: Record<string, Record<string, { factor: number; unit: string; decimals: number }>> = {
  "tds": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "hardness": {
    "us": {
      "factor": 0.05841783116413532,
      "unit": "gpg",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "calcium": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "magnesium": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "alkalinity": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "ph": {
    "us": {
      "factor": 1.0,
      "unit": "",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "",
      "decimals": 1
    }
  },
  "temperature": {
    "us": {
      "factor": 1.0,
      "unit": "°C",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "°C",
      "decimals": 1
    }
  },
  "iron": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "iron_ferrous": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "manganese": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "tannin": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    }
  },
  "chlorine_free": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    }
  },
  "chlorine_total": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    }
  },
  "chlorine_combined": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 1
    }
  },
  "turbidity": {
    "us": {
      "factor": 1.0,
      "unit": "NTU",
      "decimals": 1
    },
    "metric": {
      "factor": 1.0,
      "unit": "NTU",
      "decimals": 1
    }
  },
  "hydrogen_sulfide": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "sulfate": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "chloride": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "sodium": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "potassium": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "carbon_dioxide": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "copper": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "copper_flushed": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "lead": {
    "us": {
      "factor": 1000.0,
      "unit": "µg/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1000.0,
      "unit": "µg/L",
      "decimals": 1
    }
  },
  "nitrate_n": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "nitrite_n": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "arsenic": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 4
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 4
    }
  },
  "uranium": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 4
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 4
    }
  },
  "barium": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "radium": {
    "us": {
      "factor": 1.0,
      "unit": "pCi/L",
      "decimals": 1
    },
    "metric": {
      "factor": 0.037,
      "unit": "Bq/L",
      "decimals": 0
    }
  },
  "silica": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 0
    }
  },
  "fluoride": {
    "us": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    },
    "metric": {
      "factor": 1.0,
      "unit": "mg/L",
      "decimals": 2
    }
  },
  "radon": {
    "us": {
      "factor": 1.0,
      "unit": "pCi/L",
      "decimals": 0
    },
    "metric": {
      "factor": 0.037,
      "unit": "Bq/L",
      "decimals": 0
    }
  },
  "coliform": {
    "us": {
      "factor": 1.0,
      "unit": "per 100 mL",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "per 100 mL",
      "decimals": 0
    }
  },
  "e_coli": {
    "us": {
      "factor": 1.0,
      "unit": "per 100 mL",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "per 100 mL",
      "decimals": 0
    }
  },
  "uvt": {
    "us": {
      "factor": 1.0,
      "unit": "%",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "%",
      "decimals": 0
    }
  },
  "pfoa": {
    "us": {
      "factor": 1000000.0,
      "unit": "ng/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1000000.0,
      "unit": "ng/L",
      "decimals": 1
    }
  },
  "pfos": {
    "us": {
      "factor": 1000000.0,
      "unit": "ng/L",
      "decimals": 1
    },
    "metric": {
      "factor": 1000000.0,
      "unit": "ng/L",
      "decimals": 1
    }
  },
  "flow": {
    "us": {
      "factor": 1.0,
      "unit": "gpm",
      "decimals": 1
    },
    "metric": {
      "factor": 3.785411784,
      "unit": "L/min",
      "decimals": 0
    }
  },
  "pressure_static": {
    "us": {
      "factor": 1.0,
      "unit": "psi",
      "decimals": 0
    },
    "metric": {
      "factor": 6.894757,
      "unit": "kPa",
      "decimals": 0
    }
  },
  "pressure_running": {
    "us": {
      "factor": 1.0,
      "unit": "psi",
      "decimals": 0
    },
    "metric": {
      "factor": 6.894757,
      "unit": "kPa",
      "decimals": 0
    }
  },
  "colour": {
    "us": {
      "factor": 1.0,
      "unit": "",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "",
      "decimals": 0
    }
  },
  "noticed": {
    "us": {
      "factor": 1.0,
      "unit": "",
      "decimals": 0
    },
    "metric": {
      "factor": 1.0,
      "unit": "",
      "decimals": 0
    }
  }
};
export const SOURCE_NAMES: Record<string, string> = {
  "city": "town main",
  "well_drilled": "drilled well",
  "well_dug": "dug well",
  "spring": "spring",
  "lake": "lake intake",
  "cistern": "cistern"
};
export const KIND_NAMES: Record<string, string> = {
  "sediment": "Sediment filter",
  "carbon": "Carbon filter",
  "softener": "Softener",
  "salt_free": "Salt-free conditioner",
  "physical": "Physical conditioner",
  "iron_filter": "Iron filter",
  "neutraliser": "Acid neutralizer",
  "tannin": "Tannin filter",
  "mixed_bed": "Mixed tannin and softening bed",
  "ultrafiltration": "Ultrafiltration",
  "uv": "UV system",
  "membrane": "RO system",
  "distiller": "Distiller",
  "cartridge": "Adsorptive cartridge",
  "pitcher": "Pitcher or counter filter",
  "aeration": "Aeration",
  "nitrate": "Nitrate unit",
  "arsenic": "Arsenic unit",
  "chlorinator": "Chlorinator",
  "regulator": "Pressure regulator",
  "expansion": "Expansion device",
  "bypass": "Untreated outdoor bypass",
  "booster": "Booster pump",
  "polish": "Mineral and pH polish",
  "raw_line": "Raw kitchen line",
  "system": "Drinking tap, complete"
};
export const ANALYTE_NAMES: Record<string, string> = {
  "tds": "Total dissolved solids (TDS)",
  "hardness": "Hardness",
  "calcium": "Calcium hardness",
  "magnesium": "Magnesium hardness",
  "alkalinity": "Alkalinity",
  "ph": "pH",
  "temperature": "Temperature",
  "iron": "Iron, total",
  "iron_ferrous": "Iron, dissolved",
  "manganese": "Manganese",
  "tannin": "Tannin",
  "chlorine_free": "Free chlorine",
  "chlorine_total": "Total chlorine",
  "chlorine_combined": "Chloramine",
  "turbidity": "Turbidity",
  "hydrogen_sulfide": "Hydrogen sulfide",
  "sulfate": "Sulfate",
  "chloride": "Chloride",
  "sodium": "Sodium",
  "potassium": "Potassium",
  "carbon_dioxide": "Carbon dioxide",
  "copper": "Copper, first draw",
  "copper_flushed": "Copper, flushed",
  "lead": "Lead, first draw",
  "nitrate_n": "Nitrate as N",
  "nitrite_n": "Nitrite as N",
  "arsenic": "Arsenic",
  "uranium": "Uranium",
  "barium": "Barium",
  "radium": "Radium 226 and 228",
  "silica": "Silica",
  "fluoride": "Fluoride",
  "radon": "Radon in water",
  "coliform": "Coliform bacteria",
  "e_coli": "E. coli",
  "uvt": "UV transmittance",
  "pfoa": "PFOA",
  "pfos": "PFOS",
  "flow": "Flow",
  "pressure_static": "Static pressure",
  "pressure_running": "Running pressure",
  "colour": "Color",
  "noticed": "Smell, stains and slime"
};
export const WISHED: string[] = [
  "fluoride",
  "sodium",
  "chlorine_free",
  "chlorine_combined",
  "hardness",
  "tds",
  "nitrate_n",
  "iron",
  "sulfate",
  "chloride",
  "pfoa",
  "pfos"
];
export const GOALS: [id: "no_salt" | "drinking_only" | "price_today" | "cost_over_years" | "own_time" | "no_electricity" | "less_waste" | "no_drilling" | "germs", words: string][] = [
  [
    "no_salt",
    "No salt"
  ],
  [
    "drinking_only",
    "Drinking water only"
  ],
  [
    "price_today",
    "Lowest price today"
  ],
  [
    "cost_over_years",
    "Lowest total cost"
  ],
  [
    "own_time",
    "Least of our time"
  ],
  [
    "no_electricity",
    "No electricity"
  ],
  [
    "less_waste",
    "Least wastewater"
  ],
  [
    "no_drilling",
    "No drilling"
  ],
  [
    "germs",
    "Worried about germs"
  ]
];
export const IN_PLACE: Record<string, { name: string; part: string; drawing: string; asks: string[]; works_on: string[] }> = {
  "fridge": {
    "name": "Refrigerator filter",
    "part": "cartridge",
    "drawing": "cartridge",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "gallons",
      "gal_day"
    ],
    "works_on": [
      "chlorine_free",
      "chlorine_total",
      "chlorine_combined",
      "turbidity",
      "lead",
      "pfoa",
      "pfos"
    ]
  },
  "jug": {
    "name": "Pitcher",
    "part": "cartridge",
    "drawing": "pitcher",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "gallons",
      "gal_day",
      "change_at_tds"
    ],
    "works_on": [
      "chlorine_free",
      "chlorine_total",
      "chlorine_combined",
      "turbidity",
      "lead",
      "pfoa",
      "pfos",
      "hardness",
      "tds"
    ]
  },
  "tap_filter": {
    "name": "Filter at the tap",
    "part": "cartridge",
    "drawing": "tap_carbon",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "gallons",
      "gal_day"
    ],
    "works_on": [
      "chlorine_free",
      "chlorine_total",
      "chlorine_combined",
      "turbidity",
      "lead",
      "pfoa",
      "pfos"
    ]
  },
  "dispenser": {
    "name": "Water dispenser",
    "part": "cartridge or bottle",
    "drawing": "cartridge",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "gallons",
      "gal_day"
    ],
    "works_on": [
      "chlorine_free",
      "chlorine_total",
      "chlorine_combined",
      "turbidity",
      "lead",
      "pfoa",
      "pfos"
    ]
  },
  "membrane": {
    "name": "RO system at the tap",
    "part": "filters and membrane",
    "drawing": "membrane",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "change_at_tds"
    ],
    "works_on": [
      "chlorine_free",
      "chlorine_total",
      "chlorine_combined",
      "turbidity",
      "lead",
      "pfoa",
      "pfos",
      "tds",
      "hardness",
      "iron",
      "sulfate",
      "chloride",
      "sodium",
      "nitrate_n",
      "nitrite_n",
      "arsenic",
      "uranium",
      "barium",
      "radium",
      "fluoride"
    ]
  },
  "softener": {
    "name": "Softener",
    "part": "salt",
    "drawing": "softener",
    "asks": [
      "resin_ft3",
      "dose_lb_ft3",
      "setting_gpg",
      "clock_days"
    ],
    "works_on": [
      "hardness",
      "iron",
      "manganese",
      "barium",
      "radium"
    ]
  },
  "conditioner": {
    "name": "Conditioner without salt",
    "part": "media",
    "drawing": "salt_free",
    "asks": [
      "changed_on",
      "months",
      "part_price"
    ],
    "works_on": []
  },
  "carbon": {
    "name": "Carbon tank or housing",
    "part": "carbon",
    "drawing": "carbon",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "gallons",
      "gal_day"
    ],
    "works_on": [
      "chlorine_free",
      "chlorine_total",
      "chlorine_combined",
      "tannin",
      "colour"
    ]
  },
  "sediment": {
    "name": "Sediment filter",
    "part": "cartridge",
    "drawing": "sediment",
    "asks": [
      "changed_on",
      "months",
      "part_price"
    ],
    "works_on": [
      "turbidity"
    ]
  },
  "iron_filter": {
    "name": "Iron filter",
    "part": "media",
    "drawing": "iron_filter",
    "asks": [
      "changed_on",
      "months",
      "part_price"
    ],
    "works_on": [
      "iron",
      "manganese",
      "hydrogen_sulfide"
    ]
  },
  "neutraliser": {
    "name": "Acid neutralizer",
    "part": "calcite",
    "drawing": "neutraliser",
    "asks": [
      "changed_on",
      "months",
      "part_price"
    ],
    "works_on": [
      "ph",
      "alkalinity",
      "hardness"
    ]
  },
  "uv": {
    "name": "UV lamp",
    "part": "lamp",
    "drawing": "uv",
    "asks": [
      "changed_on",
      "months",
      "part_price"
    ],
    "works_on": [
      "coliform",
      "e_coli"
    ]
  },
  "other": {
    "name": "Other equipment",
    "part": "part",
    "drawing": "sediment",
    "asks": [],
    "works_on": []
  }
};
export const SMELLS: string[] = [
  "chlorine",
  "earthy",
  "musty",
  "eggs",
  "fishy",
  "medicine"
];
export const FLAVOURS: string[] = [
  "metal",
  "salty",
  "bitter",
  "sweet",
  "flat",
  "fresh",
  "chalky",
  "plastic"
];
export const METRIC: Record<string, [unit: string, factor: number]> = {
  "grains a pound of salt": [
    "g a kilogram of salt",
    0.14285714285714285
  ],
  "gr/lb": [
    "g/kg",
    0.14285714285714285
  ],
  "grains": [
    "g as CaCO₃",
    0.06479891
  ],
  "gallon": [
    "liter",
    3.785411784
  ],
  "gal/day": [
    "L/day",
    3.785411784
  ],
  "gal/ft³": [
    "L/L",
    0.13368055555555555
  ],
  "gal": [
    "L",
    3.785411784
  ],
  "gpm/ft²": [
    "m/h",
    2.4447499999999995
  ],
  "gpm": [
    "L/min",
    3.785411784
  ],
  "pCi/L": [
    "Bq/L",
    0.037
  ],
  "psi": [
    "kPa",
    6.894757
  ],
  "lb/ft³": [
    "g/L",
    16.018463373960138
  ],
  "ft³": [
    "L",
    28.316846592
  ],
  "lb": [
    "kg",
    0.45359237
  ],
  "gpg": [
    "mg/L",
    17.11806104527095
  ],
  "in": [
    "cm",
    2.54
  ],
  "ft": [
    "m",
    0.3048
  ]
};
export const APPLIANCES: Record<string, { name: string; uses: number; litres: number }> = {
  "dishwasher": {
    "name": "Dishwasher",
    "uses": 280,
    "litres": 11.0
  },
  "washing_machine": {
    "name": "Washing machine",
    "uses": 220,
    "litres": 50.0
  },
  "coffee_machine": {
    "name": "Coffee machine or kettle",
    "uses": 365.25,
    "litres": 2.0
  },
  "water_heater": {
    "name": "Water heater",
    "uses": 365.25,
    "litres": 100.0
  }
};
export const PROCEDURES: Procedure[] = [
  {
    "kind": "meter",
    "title": "Dissolved solids",
    "steps": [
      "Cup and probe rinsed",
      "Fill to the mark, stir",
      "Wait until it is steady"
    ],
    "analyte": "tds",
    "caution": "",
    "reagent": false
  },
  {
    "kind": "drops",
    "title": "Hardness, by drops",
    "steps": [
      "Rinse the vial, fill it to the mark",
      "Buffer and indicator in, swirl",
      "One drop at a time, bottle upright; swirl"
    ],
    "analyte": "hardness",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "drops",
    "title": "Calcium hardness, by drops",
    "steps": [
      "Rinse the vial, fill it to the mark",
      "High-pH buffer, indicator",
      "One drop at a time, bottle upright; swirl"
    ],
    "analyte": "calcium",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "drops",
    "title": "Alkalinity, by drops",
    "steps": [
      "Rinse the vial, fill it to the mark",
      "Indicator in, swirl",
      "One drop at a time, bottle upright; swirl"
    ],
    "analyte": "alkalinity",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Free chlorine",
    "steps": [
      "Blank on this water",
      "Add the reagent, swirl",
      "Read within one minute"
    ],
    "analyte": "chlorine_free",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Total chlorine",
    "steps": [
      "Within fifteen minutes of drawing",
      "Add the reagent, swirl",
      "Read after three minutes"
    ],
    "analyte": "chlorine_total",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Iron, total",
    "steps": [
      "Blank on this water",
      "Add the powder, swirl",
      "Read after its wait"
    ],
    "analyte": "iron",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Iron, dissolved",
    "steps": [
      "Filter the sample at once",
      "Blank, then the powder",
      "Read after its wait"
    ],
    "analyte": "iron_ferrous",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Manganese",
    "steps": [
      "Blank on this water",
      "Add the reagent",
      "Read after its wait"
    ],
    "analyte": "manganese",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Tannin",
    "steps": [
      "Blank on this water",
      "Add the reagent",
      "Read after 25 minutes"
    ],
    "analyte": "tannin",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "pH",
    "steps": [
      "On site, never posted",
      "Rinse, stir gently",
      "Wait until it is steady"
    ],
    "analyte": "ph",
    "caution": "",
    "reagent": false
  },
  {
    "kind": "comparator",
    "title": "pH, by drops",
    "steps": [
      "On site, never posted",
      "Rinse the tube with this water, fill to the mark",
      "The kit’s drops in, turn it over once",
      "Against white, in daylight: touch the color it matches"
    ],
    "analyte": "ph",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Temperature",
    "steps": [
      "In running water",
      "Wait until it is steady"
    ],
    "analyte": "temperature",
    "caution": "",
    "reagent": false
  },
  {
    "kind": "display",
    "title": "Turbidity",
    "steps": [
      "Wipe the vial dry",
      "Turn it over gently, no bubbles"
    ],
    "analyte": "turbidity",
    "caution": "",
    "reagent": true
  },
  {
    "kind": "display",
    "title": "Static pressure",
    "steps": [
      "No tap open",
      "Gauge on a hose tap"
    ],
    "analyte": "pressure_static",
    "caution": "",
    "reagent": false
  },
  {
    "kind": "display",
    "title": "Running pressure",
    "steps": [
      "A tap open",
      "Read when it stands still"
    ],
    "analyte": "pressure_running",
    "caution": "",
    "reagent": false
  },
  {
    "kind": "comparator",
    "title": "",
    "steps": [
      "Two tubes of this water: one with its reagent, one without",
      "Wait its own minutes",
      "Against white, in daylight: touch the color it matches, or the gap between two"
    ],
    "analyte": "",
    "caution": "Reagents: keep them off skin and eyes.",
    "reagent": true
  },
  {
    "kind": "strip",
    "title": "",
    "steps": [
      "Dip without moving it",
      "Wait its own seconds",
      "Touch the pad it matches, or the gap between two"
    ],
    "analyte": "",
    "caution": "",
    "reagent": true
  }
];
export const MG_L_PER_GPG = 17.11806104527095;
export const L_PER_GAL = 3.785411784;
export const GAL_PER_M3 = 264.17205235814845;
export const BQ_L_PER_PCI_L = 0.037;
