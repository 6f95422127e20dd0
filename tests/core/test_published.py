"""Every published limit, written down here a second time from its source: one that slips is
told.
"""

import unittest

from zesty_glass.core.rules import LIMITS

#: id -> value [mg/L; pH; NTU; pCi/L], from the standard that the row names
FROM_THE_SOURCES = {
    "tds.secondary": 500,  # 40 CFR 143.3
    "iron.stains": 0.3,  # 40 CFR 143.3
    "manganese.stains": 0.05,  # 40 CFR 143.3
    "manganese.who": 0.08,  # WHO 2021, provisional, bottle-fed infants
    "manganese.canada": 0.12,  # Health Canada 2019
    "manganese.us": 0.3,  # EPA 2004, lifetime advisory
    "chlorine.taste": 0.5,
    "chlorine.maximum": 4.0,  # 40 CFR 141.65, as Cl2
    "ph.low": 6.5,  # 40 CFR 143.3
    "ph.high": 8.5,  # 40 CFR 143.3
    "ph.corrosive": 7.0,
    "tannin.tint": 0.5,
    "turbidity.looks": 1.0,  # WHO 2017
    "sulfide.smell": 0.05,  # WHO 2003
    "sulfate.taste": 250,  # 40 CFR 143.3
    "sulfate.infants": 500,  # EPA 2003, advisory
    "chloride.taste": 250,  # 40 CFR 143.3
    "sodium.taste": 200,  # WHO 2017
    "sodium.diet": 20,  # EPA 2003, advisory
    "copper.action": 1.3,  # 40 CFR 141.80
    "copper.taste": 1.0,  # 40 CFR 143.3
    "copper_flushed.action": 1.3,  # 40 CFR 141.80
    "lead.goal": 0,  # 40 CFR 141.51
    "lead.us": 0.015,  # 40 CFR 141.80
    "lead.us2027": 0.010,  # EPA 2024, in force in 2027
    "lead.who": 0.010,  # WHO 2017
    "lead.canada": 0.005,  # Health Canada 2019
    "nitrate.us": 10,  # 40 CFR 141.62, as N
    "nitrate.who": 50 * 14.007 / 62.005,  # WHO 2017: 50 mg/L as NO3, here as N
    "nitrite.us": 1,  # 40 CFR 141.62, as N
    "arsenic.us": 0.010,  # 40 CFR 141.62
    "uranium.us": 0.030,  # 40 CFR 141.66
    "barium.us": 2,  # 40 CFR 141.62
    "radium.us": 5,  # 40 CFR 141.66, 226 and 228 together
    "fluoride.us": 4.0,  # 40 CFR 141.62
    "fluoride.secondary": 2.0,  # 40 CFR 143.3
    "fluoride.who": 1.5,  # WHO 2017
    "pfoa.us": 0.000004,  # EPA 2024: 4.0 ng/L
    "pfos.us": 0.000004,  # EPA 2024: 4.0 ng/L
    "coliform.none": 0,  # 40 CFR 141.63
    "e_coli.none": 0,  # 40 CFR 141.63
    "radon.eu": 2_703,  # 2013/51/Euratom: 100 Bq/L, at 0.037 Bq a pCi
    "radon.us_proposed": 300,  # EPA 1999, proposed
}


class Published(unittest.TestCase):
    def test_each_is_that_of_its_source(self):
        self.assertEqual({x.id for x in LIMITS}, set(FROM_THE_SOURCES))
        for x in LIMITS:
            with self.subTest(x.id):
                wanted = FROM_THE_SOURCES[x.id]
                self.assertAlmostEqual(x.value, wanted, delta=0.0005 * wanted)
                lowest = x.id in ("ph.low", "ph.corrosive")
                self.assertEqual(x.op, "at_least" if lowest else "at_most")
