"""Makes phreeqc.json: what a full geochemical model says of 300 waters of the kind met in homes.

PHREEQC (phreeqc.dat) through the package phreeqpython, which is needed to make the table anew and
for nothing else:

    python3 -m venv /tmp/table && /tmp/table/bin/pip install phreeqpython
    /tmp/table/bin/python tests/core/testing/phreeqc_table.py

Each row: pH, temperature t [°C], alkalinity and calcium [mg/L as CaCO3], tds [mg/L]; the saturation
index at the tap and in a closed heater at 60 °C with the pH there; calcite dissolved [mg/L as
CaCO3] to saturation and to pH 7.4.
"""

import json
import math
import random
from pathlib import Path

SEED, MANY = 2330, 300


def waters():
    rnd = random.Random(SEED)
    while True:
        ph, t = round(rnd.uniform(6.2, 8.4), 2), round(rnd.uniform(6, 24), 1)
        alk = round(math.exp(rnd.uniform(math.log(20), math.log(300))))
        ca = round(math.exp(rnd.uniform(math.log(12), math.log(300))))
        mg, so4 = round(ca * rnd.uniform(0.1, 0.4)), round(rnd.uniform(3, 60))
        cl = rnd.uniform(4, 60)
        short = alk / 50.044 + so4 / 48.03 + cl / 35.45 - (ca + mg) / 50.044
        na = max(0.5, short * 22.99)
        cl = cl if short > 0 else cl - short * 35.45 + 0.5 / 22.99 * 35.45
        tds = round(ca * 0.4004 + mg * 0.2429 + na + cl + so4 + alk * 0.6)
        if 30 < tds < 900:
            yield {
                "ph": ph,
                "t": t,
                "alk": alk,
                "ca": ca,
                "mg": mg,
                "na": na,
                "cl": cl,
                "so4": so4,
                "tds": tds,
            }


def answers(pp, w):
    s = pp.add_solution(
        {
            "temp": w["t"],
            "pH": w["ph"],
            "units": "mg/l",
            "Ca": w["ca"] * 0.40043,
            "Mg": w["mg"] * 0.24285,
            "Na": w["na"],
            "Cl": w["cl"],
            "S(6)": f"{w['so4']} as SO4",
            "Alkalinity": f"{w['alk']} as CaCO3",
        }
    )
    row = {k: w[k] for k in ("ph", "t", "alk", "ca", "tds")} | {"si": round(s.si("Calcite"), 4)}
    hot = s.copy()
    hot.change_temperature(60)
    row |= {"hot_ph": round(hot.pH, 4), "hot_si": round(hot.si("Calcite"), 4)}
    if row["si"] < 0:
        c = s.copy()
        before = c.total("Ca", "mmol")
        c.saturate("Calcite", 0)
        row["to_saturation"] = round((c.total("Ca", "mmol") - before) * 100.087, 3)
    if w["ph"] < 7.4:
        low, high = 0.0, 10.0
        for _ in range(40):
            mid = (low + high) / 2
            c = s.copy()
            c.add("Calcite", mid, "mmol")
            low, high = (mid, high) if c.pH < 7.4 else (low, mid)
            c.forget()
        row["to_target"] = round(low * 100.087, 3)
    return row


def main():
    import phreeqpython

    pp, made = phreeqpython.PhreeqPython(), waters()
    rows = [answers(pp, next(made)) for _ in range(MANY)]
    text = "[\n" + ",\n".join(json.dumps(r) for r in rows) + "\n]\n"
    Path(__file__).with_name("phreeqc.json").write_text(text)


if __name__ == "__main__":
    main()
