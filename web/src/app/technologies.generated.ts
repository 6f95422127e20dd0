/** Written by ./zesty client from the core: change it there. */
export interface Adjustable {
  key: string;
  label: string;
  unit: string;
  least: number;
  most: number;
  hint: string;
  where: [field: string, value: string][];
  yes: boolean;
}
export const GAUGED: Record<string, { name: string; unit: string; most: number; at: string[] }> = {
  "lamp": {
    "name": "Days powered, on its display",
    "unit": "days",
    "most": 20000.0,
    "at": [
      "uv"
    ]
  },
  "media": {
    "name": "What is left of the bed",
    "unit": "%",
    "most": 100.0,
    "at": [
      "neutraliser"
    ]
  }
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
  "polish": "polish",
  "raw_line": "raw_line"
};
export const DOES: Record<string, string[]> = {
  "sediment": [],
  "carbon": [
    "takes chlorine"
  ],
  "softener": [
    "against hardness",
    "exchanges",
    "softens"
  ],
  "salt_free": [
    "against hardness",
    "leaves minerals"
  ],
  "physical": [],
  "iron_filter": [
    "takes iron"
  ],
  "neutraliser": [
    "raises pH"
  ],
  "tannin": [
    "against tannin",
    "exchanges"
  ],
  "mixed_bed": [
    "against hardness",
    "against tannin",
    "exchanges"
  ],
  "ultrafiltration": [],
  "uv": [
    "inactivates"
  ],
  "membrane": [
    "holds back",
    "makes slowly"
  ],
  "distiller": [
    "makes slowly"
  ],
  "cartridge": [],
  "pitcher": [],
  "aeration": [],
  "nitrate": [
    "exchanges"
  ],
  "arsenic": [],
  "chlorinator": [],
  "regulator": [],
  "expansion": [],
  "bypass": [],
  "booster": [],
  "polish": [],
  "raw_line": [
    "as it comes"
  ]
};
export const SETTINGS: Record<string, Adjustable[]> = {
  "sediment": [
    {
      "key": "backwash_days",
      "label": "Backwash, every",
      "unit": "days",
      "least": 1,
      "most": 60,
      "hint": "empty: its own",
      "where": [
        [
          "backwash_days",
          "*"
        ]
      ],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    }
  ],
  "carbon": [
    {
      "key": "backwash_days",
      "label": "Backwash, every",
      "unit": "days",
      "least": 1,
      "most": 60,
      "hint": "empty: its own",
      "where": [
        [
          "backwash_days",
          "*"
        ]
      ],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "softener": [
    {
      "key": "dose_lb_ft3",
      "label": "Salt dose",
      "unit": "lb/ft³",
      "least": 3,
      "most": 20,
      "hint": "empty: its own",
      "where": [],
      "yes": false
    },
    {
      "key": "reserve_days",
      "label": "Kept back",
      "unit": "days",
      "least": 0.0,
      "most": 3,
      "hint": "empty: one day",
      "where": [
        [
          "control",
          "metered"
        ]
      ],
      "yes": false
    },
    {
      "key": "clock_days",
      "label": "Clock, every",
      "unit": "days",
      "least": 1,
      "most": 30,
      "hint": "empty: its own",
      "where": [
        [
          "control",
          "clock"
        ]
      ],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "iron_filter": [
    {
      "key": "backwash_days",
      "label": "Backwash, every",
      "unit": "days",
      "least": 1,
      "most": 60,
      "hint": "empty: its own",
      "where": [
        [
          "backwash_days",
          "*"
        ]
      ],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "neutraliser": [
    {
      "key": "refill_months",
      "label": "Topped up, every",
      "unit": "months",
      "least": 1,
      "most": 60,
      "hint": "empty: at a third",
      "where": [
        [
          "style",
          "upflow|backwashing"
        ]
      ],
      "yes": false
    },
    {
      "key": "backwash_days",
      "label": "Backwash, every",
      "unit": "days",
      "least": 1,
      "most": 60,
      "hint": "empty: its own",
      "where": [
        [
          "backwash_days",
          "*"
        ]
      ],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "tannin": [
    {
      "key": "regen_days",
      "label": "Regeneration, every",
      "unit": "days",
      "least": 1,
      "most": 30,
      "hint": "empty: its own",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "mixed_bed": [
    {
      "key": "regen_days",
      "label": "Regeneration, every",
      "unit": "days",
      "least": 1,
      "most": 30,
      "hint": "empty: its own",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_hour",
      "label": "Rinses at",
      "unit": "h, of 24",
      "least": 0.0,
      "most": 23,
      "hint": "empty: from 1 on",
      "where": [],
      "yes": false
    },
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "ultrafiltration": [
    {
      "key": "clock_off_logged",
      "label": "Switched off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ],
  "uv": [
    {
      "key": "limiter_gpm",
      "label": "Fixed flow limiter",
      "unit": "gpm",
      "least": 0.25,
      "most": 100,
      "hint": "empty: none",
      "where": [],
      "yes": false
    },
    {
      "key": "lay_up_logged",
      "label": "Lamp off while nobody is there, each day logged",
      "unit": "",
      "least": 0.0,
      "most": 1.0,
      "hint": "empty: its own",
      "where": [],
      "yes": true
    }
  ]
};
