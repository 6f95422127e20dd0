/** Written by ./zesty client from the core: change it there. */
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
  "carbon": "Carbon",
  "softener": "Softener",
  "salt_free": "Salt-free conditioner",
  "physical": "Physical conditioner",
  "iron_filter": "Iron filter",
  "neutraliser": "Acid neutraliser",
  "tannin": "Tannin filter",
  "mixed_bed": "Mixed tannin and softening bed",
  "ultrafiltration": "Ultrafiltration",
  "uv": "UV",
  "membrane": "Membrane",
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
  "system": "Drinking tap, complete"
};
export const DRAWINGS: Record<string, string> = {
  "sediment": "sediment",
  "carbon": "carbon",
  "softener": "softener",
  "salt_free": "salt_free",
  "physical": "physical",
  "iron_filter": "iron_filter",
  "neutraliser": "neutraliser",
  "tannin": "tannin",
  "mixed_bed": "mixed_bed",
  "ultrafiltration": "ultrafiltration",
  "uv": "uv",
  "membrane": "membrane",
  "distiller": "distiller",
  "cartridge": "cartridge",
  "pitcher": "pitcher",
  "aeration": "aeration",
  "nitrate": "nitrate",
  "arsenic": "arsenic",
  "chlorinator": "chlorinator",
  "regulator": "regulator",
  "expansion": "expansion",
  "bypass": "bypass",
  "booster": "booster",
  "polish": "polish"
};
export const ANALYTE_NAMES: Record<string, string> = {
  "tds": "Dissolved matter (TDS)",
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
  "colour": "Colour",
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
export const IN_PLACE: Record<string, { name: string; part: string; drawing: string; asks: string[] }> = {
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
    ]
  },
  "membrane": {
    "name": "Membrane at the tap",
    "part": "filters and membrane",
    "drawing": "membrane",
    "asks": [
      "changed_on",
      "months",
      "part_price",
      "change_at_tds"
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
    ]
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
    ]
  },
  "neutraliser": {
    "name": "Acid neutraliser",
    "part": "calcite",
    "drawing": "neutraliser",
    "asks": [
      "changed_on",
      "months",
      "part_price"
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
    ]
  },
  "other": {
    "name": "Other equipment",
    "part": "part",
    "drawing": "sediment",
    "asks": []
  }
};
export const MG_L_PER_GPG = 17.11806104527095;
export const L_PER_GAL = 3.785411784;
export const KPA_PER_PSI = 6.894757;
export const CM_PER_IN = 2.54;
export const BQ_L_PER_PCI_L = 0.037;
