/** Written by ./zesty client from the core: change it there. */
export const REPORTED: Record<string, { units: string[]; bases: string[] }> = {
  "tds": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "hardness": {
    "units": [
      "mg/L",
      "gpg",
      "°dH",
      "mmol/L"
    ],
    "bases": []
  },
  "calcium": {
    "units": [
      "mg/L",
      "gpg",
      "°dH",
      "mmol/L"
    ],
    "bases": [
      "Ca",
      "CaCO3"
    ]
  },
  "magnesium": {
    "units": [
      "mg/L",
      "gpg",
      "°dH",
      "mmol/L"
    ],
    "bases": [
      "Mg",
      "CaCO3"
    ]
  },
  "alkalinity": {
    "units": [
      "mg/L",
      "gpg",
      "°dH",
      "mmol/L"
    ],
    "bases": [
      "CaCO3",
      "HCO3"
    ]
  },
  "ph": {
    "units": [
      "pH"
    ],
    "bases": []
  },
  "temperature": {
    "units": [
      "°C"
    ],
    "bases": []
  },
  "iron": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "iron_ferrous": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "manganese": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "tannin": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "chlorine_free": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "chlorine_total": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "chlorine_combined": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "turbidity": {
    "units": [
      "NTU"
    ],
    "bases": []
  },
  "hydrogen_sulfide": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "sulfate": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "chloride": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "sodium": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "potassium": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "carbon_dioxide": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "copper": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "copper_flushed": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "lead": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "nitrate_n": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": [
      "N",
      "NO3"
    ]
  },
  "nitrite_n": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": [
      "N",
      "NO2"
    ]
  },
  "arsenic": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": [
      "As(V)",
      "As(III)"
    ]
  },
  "uranium": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "barium": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "radium": {
    "units": [
      "pCi/L",
      "Bq/L"
    ],
    "bases": []
  },
  "silica": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "fluoride": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "radon": {
    "units": [
      "pCi/L",
      "Bq/L"
    ],
    "bases": [
      "collection",
      "counting"
    ]
  },
  "coliform": {
    "units": [
      "per 100 mL"
    ],
    "bases": []
  },
  "e_coli": {
    "units": [
      "per 100 mL"
    ],
    "bases": []
  },
  "uvt": {
    "units": [
      "%"
    ],
    "bases": []
  },
  "pfoa": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "pfos": {
    "units": [
      "mg/L",
      "µg/L",
      "ppb",
      "ng/L"
    ],
    "bases": []
  },
  "flow": {
    "units": [
      "gpm"
    ],
    "bases": []
  },
  "pressure_static": {
    "units": [
      "psi"
    ],
    "bases": []
  },
  "pressure_running": {
    "units": [
      "psi"
    ],
    "bases": []
  },
  "colour": {
    "units": [
      ""
    ],
    "bases": []
  },
  "noticed": {
    "units": [
      ""
    ],
    "bases": []
  }
};
