"""The demo firm's catalogue: about sixty invented items from invented makers, good and poor ones."""

from __future__ import annotations

from datetime import date
from decimal import Decimal
from typing import Any

from ..core.proposing.evidence import Evidence, Level
from ..core.treating.items import (
    CarbonFigures,
    CartridgeFigures,
    ConditionerFigures,
    Consumable,
    DistillerFigures,
    Effect,
    IronFilterFigures,
    Item,
    MembraneFigures,
    Need,
    NeutraliserFigures,
    OtherFigures,
    PitcherFigures,
    SedimentFigures,
    SoftenerFigures,
    SystemFigures,
    TanninFigures,
    UvFigures,
)

QUORREL, TESSABY, HODMARROW, ULVENBY, BRINDLE = "Quorrel", "Tessaby Works", "Hodmarrow", "Ulvenby", "Brindleware"
_CHECKED = date(2026, 9, 14)


def _cert(standard: str, number: str) -> Evidence:
    return Evidence(level=Level.CERTIFIED, certifier="Okvell Assay Office", standard=standard, certificate=number, checked_on=_CHECKED)


_TYPICAL = Evidence(level=Level.TYPICAL)
_STATES = Evidence(level=Level.MAKER_STATES)
_TESTED = Evidence(level=Level.TESTED, note="maker’s laboratory report")
_NO_CLAIM = Evidence(level=Level.NO_CLAIM)
_NOT = Evidence(level=Level.DOES_NOT_REMOVE)


def _e(analyte: str, low: float, best: float, high: float, evidence: Evidence, **more: Any) -> Effect:
    return Effect(analyte=analyte, low=low, best=best, high=high, evidence=evidence, **more)


def _none(*analytes: str) -> tuple[Effect, ...]:
    return tuple(Effect(analyte=a, evidence=_NO_CLAIM) for a in analytes)


def _c(code: str, name: str, kind: str, price: str, months: float | None = None, gal: float | None = None, minutes: int = 15, own: bool = True, common: bool = True) -> Consumable:
    return Consumable(code=code, name=name, kind=kind, price=Decimal(price), months=months, capacity_gal=gal, minutes=minutes, own=own, common=common)  # type: ignore[arg-type]


def _item(code: str, name: str, maker: str, scope: str, price: str, figures: Any, **more: Any) -> Item:
    more.setdefault("priced_on", "2026-10-01")
    for key in ("installation", "service_year"):
        if key in more:
            more[key] = Decimal(more[key])
    return Item(code=code, name=name, maker=maker, scope=scope, price=Decimal(price), figures=figures, **more)  # type: ignore[arg-type]


def _sediment() -> list[Item]:
    haze = (_e("turbidity", 0.5, 0.75, 0.9, _TYPICAL),)
    return [
        _item("SD-50", "Spin-down screen, 50 µm", HODMARROW, "house", "95", SedimentFigures(micron=50, style="spin_down"), installation="120", flow_gpm=20.0, drop_psi=1.0, drop_gpm=10.0, effects=(_e("turbidity", 0.1, 0.3, 0.5, _TYPICAL),), consumables=(_c("SD-50-S", "Screen", "part", "24", 36),), for_what="grit, sand"),
        _item("SD-20S", "Slim cartridge housing, 20 in, 5 µm", HODMARROW, "house", "85", SedimentFigures(micron=5), installation="110", flow_gpm=8.0, drop_psi=2.0, drop_gpm=5.0, effects=haze, consumables=(_c("SD-20S-C", "5 µm slim cartridge", "filter", "14", 4),), for_what="fine sediment"),
        _item("SD-20B", "Big cartridge housing, 20 in, 5 µm", HODMARROW, "house", "165", SedimentFigures(micron=5), installation="130", flow_gpm=20.0, drop_psi=2.0, drop_gpm=12.0, effects=haze, consumables=(_c("SD-20B-C", "5 µm big cartridge", "filter", "38", 6),), for_what="fine sediment, ahead of UV"),
        _item("SD-20A", "Big cartridge housing, 20 in, 1 µm absolute", TESSABY, "house", "210", SedimentFigures(micron=1, absolute=True), installation="130", flow_gpm=15.0, drop_psi=4.0, drop_gpm=10.0, effects=(_e("turbidity", 0.8, 0.93, 0.98, _TESTED),), consumables=(_c("SD-20A-C", "1 µm pleated cartridge", "filter", "64", 6, common=False),), parts="single_source", for_what="very fine sediment"),
        _item("SD-BW", "Backwashing sediment bed, 1.5 ft³", ULVENBY, "house", "890", SedimentFigures(micron=10, style="backwashing", backwash_gpm=8.0, backwash_gal=90.0, backwash_days=4.0), installation="280", drain=True, socket=True, headroom_in=66.0, flow_gpm=10.0, drop_psi=4.0, drop_gpm=9.0, kwh_year=20, effects=(_e("turbidity", 0.6, 0.8, 0.9, _TYPICAL),), consumables=(_c("SD-BW-M", "Filter sand, renewed", "media", "180", 96, minutes=90, own=False),), for_what="surface water, much sediment"),
        _item("SD-T10", "Tap pre-filter, 10 in, 5 µm", QUORREL, "tap", "0", SedimentFigures(micron=5), effects=haze, consumables=(_c("SD-T10-C", "5 µm pre-filter", "filter", "12", 12),), for_what="ahead of a membrane"),
    ]


def _carbon() -> list[Item]:
    free = _e("chlorine_free", 0.9, 0.95, 0.99, _cert("NSF/ANSI 42", "OA-42-0117"))
    both = (_e("chlorine_free", 0.92, 0.97, 0.99, _cert("NSF/ANSI 42", "OA-42-0231")), _e("chlorine_combined", 0.9, 0.95, 0.99, _cert("NSF/ANSI 42", "OA-42-0232")))
    bed = {"headroom_in": 60.0, "parts": "common"}
    return [
        _item("CB-10", "Carbon bed, 1 ft³ standard", ULVENBY, "house", "620", CarbonFigures(media="standard", volume_ft3=1.0), installation="240", flow_gpm=7.0, drop_psi=3.0, drop_gpm=7.0, weight_lb=120.0, effects=(free, *_none("chlorine_combined")), consumables=(_c("CB-10-M", "Carbon, 1 ft³, renewed", "media", "160", 60, 350000, 90, False),), for_what="free chlorine at low flow", **bed),
        _item("CB-15", "Carbon bed, 1.5 ft³ standard", ULVENBY, "house", "780", CarbonFigures(media="standard", volume_ft3=1.5), installation="240", flow_gpm=10.0, drop_psi=4.0, drop_gpm=10.0, weight_lb=170.0, effects=(free, *_none("chlorine_combined")), consumables=(_c("CB-15-M", "Carbon, 1.5 ft³, renewed", "media", "215", 60, 500000, 90, False),), for_what="free chlorine", **bed),
        _item("CC-15", "Catalytic carbon bed, 1.5 ft³", ULVENBY, "house", "960", CarbonFigures(media="catalytic", volume_ft3=1.5), installation="240", flow_gpm=10.0, drop_psi=4.0, drop_gpm=10.0, weight_lb=175.0, effects=both, consumables=(_c("CC-15-M", "Catalytic carbon, 1.5 ft³, renewed", "media", "330", 72, 500000, 90, False),), for_what="chloramine in a small home", **bed),
        _item("CC-45", "Catalytic carbon bed, 4.5 ft³", ULVENBY, "house", "1780", CarbonFigures(media="catalytic", volume_ft3=4.5), installation="320", flow_gpm=16.0, drop_psi=4.0, drop_gpm=12.0, weight_lb=420.0, effects=both, consumables=(_c("CC-45-M", "Catalytic carbon, 4.5 ft³, renewed", "media", "840", 84, 1400000, 120, False),), for_what="chloramine with contact time", **bed),
        _item("CB-C20", "Carbon block cartridge, 20 in big", HODMARROW, "house", "190", CarbonFigures(media="standard", volume_ft3=0.25), installation="130", flow_gpm=6.0, drop_psi=5.0, drop_gpm=6.0, effects=(_e("chlorine_free", 0.85, 0.93, 0.98, _STATES), *_none("chlorine_combined")), consumables=(_c("CB-C20-C", "Carbon block, big", "filter", "72", 6, 60000),), for_what="taste, small flow"),
        _item("CB-T", "Tap carbon pre-filter", QUORREL, "tap", "0", CarbonFigures(media="catalytic"), effects=(_e("chlorine_free", 0.95, 0.98, 0.995, _cert("NSF/ANSI 42", "OA-42-0310")), _e("chlorine_combined", 0.93, 0.96, 0.99, _cert("NSF/ANSI 42", "OA-42-0311"))), consumables=(_c("CB-T-C", "Catalytic carbon pre-filter", "filter", "26", 12, 1500),), for_what="ahead of a membrane"),
        _item("CP-T", "Tap post-carbon", QUORREL, "tap", "0", CarbonFigures(media="standard", position="post"), effects=(), consumables=(_c("CP-T-C", "Post-carbon", "filter", "24", 12),), for_what="taste behind a tank"),
    ]


def _softening() -> list[Item]:
    def soft(code: str, ft3: float, price: str, maker: str = TESSABY, **figures: Any) -> Item:
        extra = {k: figures.pop(k) for k in ("kwh_year", "parts", "warranty", "consumables", "name") if k in figures}
        extra.setdefault("consumables", (_c(f"{code}-R", f"Resin, {ft3:g} ft³, renewed", "resin", f"{170 * ft3 + 90:.0f}", 144, minutes=120, own=False), _c(f"{code}-V", "Valve seals and piston", "part", "110", 72, minutes=60, own=False)))
        name = extra.pop("name", f"Softener, {ft3:g} ft³, metered")
        return _item(code, name, maker, "house", price, SoftenerFigures(resin_ft3=ft3, **figures), installation="420", drain=True, socket=True, headroom_in=62.0, weight_lb=140 + 110 * ft3, flow_gpm=10 * ft3, drop_psi=5.0, drop_gpm=7.5 * ft3, kwh_year=extra.pop("kwh_year", 26), warranty="10 years on tanks, 5 on the valve", for_what="hardness", **extra)

    return [
        soft("SO-10", 1.0, "1090"), soft("SO-15", 1.5, "1290", dose_lb_ft3=6.0), soft("SO-20", 2.0, "1520", dose_lb_ft3=6.0), soft("SO-30", 3.0, "2080", dose_lb_ft3=6.0),
        soft("SO-20K", 2.0, "1560", dose_lb_ft3=6.0, salt="potassium", name="Softener, 2 ft³, metered, for potassium"),
        soft("SO-10C", 1.0, "690", maker=BRINDLE, control="clock", clock_days=7.0, dose_lb_ft3=8.0, rinse_gal_ft3=75.0, kwh_year=30, parts="single_source", name="Softener, 1 ft³, by clock every 7 days"),
        soft("SO-15F", 1.5, "1640", dose_lb_ft3=6.0, iron_max=4.0, iron_interval_days=3.0, name="Softener, 1.5 ft³, fine mesh for iron"),
        _item("SF-12", "Crystal-forming conditioner, 12 gpm", TESSABY, "house", "1180", ConditionerFigures(kind="salt_free", flow_max_gpm=12.0, protocol="a scale-rig protocol of ten weeks"), installation="260", headroom_in=48.0, flow_gpm=12.0, drop_psi=3.0, drop_gpm=10.0, effects=(Effect(analyte="hardness", evidence=_NOT),), consumables=(_c("SF-12-M", "Crystal-forming media", "media", "390", 36, minutes=45, own=False, common=False), _c("SF-12-P", "5 µm pre-filter", "filter", "32", 6)), parts="single_source", for_what="less scale, minerals stay"),
        _item("SF-08", "Crystal-forming conditioner, 8 gpm", BRINDLE, "house", "840", ConditionerFigures(kind="salt_free", flow_max_gpm=8.0), installation="240", headroom_in=44.0, flow_gpm=8.0, drop_psi=4.0, drop_gpm=8.0, effects=(Effect(analyte="hardness", evidence=_NOT),), consumables=(_c("SF-08-M", "Media cartridge", "media", "310", 24, minutes=30, common=False),), parts="single_source", for_what="less scale, minerals stay"),
        _item("PH-W", "Magnetic conditioner, whole house", BRINDLE, "house", "390", ConditionerFigures(kind="physical", flow_min_gpm=4.0, flow_max_gpm=12.0), installation="90", flow_gpm=15.0, drop_psi=0.5, drop_gpm=10.0, effects=(Effect(analyte="hardness", evidence=_NOT),), for_what="scale, effect disputed"),
        _item("PH-A", "Electronic conditioner, one appliance", BRINDLE, "house", "140", ConditionerFigures(kind="physical", flow_max_gpm=4.0, covers="appliance"), installation="40", socket=True, kwh_year=44, effects=(Effect(analyte="hardness", evidence=_NOT),), for_what="one appliance, effect disputed"),
        _item("PH-S", "Catalytic shower piece", BRINDLE, "house", "60", ConditionerFigures(kind="physical", flow_max_gpm=2.5, covers="shower"), plumbed=False, effects=(Effect(analyte="hardness", evidence=_NOT),), consumables=(_c("PH-S-C", "Catalytic insert", "filter", "28", 6),), for_what="one shower, effect disputed"),
    ]


def _iron_and_acid() -> list[Item]:
    return [
        _item("FE-A10", "Air-drawing iron filter, 10 in", ULVENBY, "house", "1480", IronFilterFigures(iron_max=7.0, manganese_max=1.0, sulfide_max=5.0, ph_min_iron=6.8, ph_min_manganese=7.5, backwash_gpm=5.5, backwash_gal=110.0, backwash_days=3.0), installation="420", drain=True, socket=True, headroom_in=64.0, flow_gpm=10.0, drop_psi=5.0, drop_gpm=9.0, kwh_year=26, effects=(_e("iron", 0.9, 0.96, 0.99, _TYPICAL), _e("manganese", 0.6, 0.8, 0.95, _TYPICAL), _e("hydrogen_sulfide", 0.8, 0.9, 0.98, _TYPICAL)), consumables=(_c("FE-A10-M", "Filter media, renewed", "media", "420", 84, minutes=120, own=False), _c("FE-A10-V", "Valve seals", "part", "95", 48, minutes=60, own=False)), for_what="iron, some manganese, egg smell"),
        _item("FE-D10", "Dense-media iron filter, 10 in", ULVENBY, "house", "1690", IronFilterFigures(oxidant="none", dense=True, iron_max=10.0, manganese_max=2.0, sulfide_max=5.0, ph_min_iron=6.5, ph_min_manganese=7.0, backwash_gpm=14.0, backwash_gal=170.0, backwash_days=3.0), installation="420", drain=True, socket=True, headroom_in=60.0, flow_gpm=10.0, drop_psi=6.0, drop_gpm=9.0, kwh_year=26, effects=(_e("iron", 0.93, 0.97, 0.99, _TESTED), _e("manganese", 0.85, 0.93, 0.98, _TESTED), _e("hydrogen_sulfide", 0.8, 0.9, 0.98, _TYPICAL)), consumables=(_c("FE-D10-M", "Dense media, renewed", "media", "640", 120, minutes=150, own=False),), for_what="iron and manganese with a strong pump"),
        _item("FE-L12", "Light-media iron filter, 12 in", TESSABY, "house", "1820", IronFilterFigures(iron_max=6.0, manganese_max=1.5, sulfide_max=2.0, ph_min_iron=6.8, ph_min_manganese=7.2, backwash_gpm=8.0, backwash_gal=140.0, backwash_days=3.0), installation="420", drain=True, socket=True, headroom_in=66.0, flow_gpm=12.0, drop_psi=4.0, drop_gpm=9.0, kwh_year=26, effects=(_e("iron", 0.9, 0.95, 0.98, _TESTED), _e("manganese", 0.7, 0.85, 0.95, _TESTED), _e("hydrogen_sulfide", 0.7, 0.85, 0.95, _STATES)), consumables=(_c("FE-L12-M", "Light media, renewed", "media", "510", 84, minutes=120, own=False), _c("FE-L12-V", "Valve seals", "part", "95", 48, minutes=60, own=False)), for_what="iron and manganese with a modest pump"),
        _item("FE-A08L", "Air-drawing iron filter, low tank", ULVENBY, "house", "1390", IronFilterFigures(iron_max=3.0, manganese_max=0.5, sulfide_max=1.0, ph_min_iron=6.7, ph_min_manganese=7.5, backwash_gpm=4.0, backwash_gal=70.0, backwash_days=4.0), installation="420", drain=True, socket=True, headroom_in=33.0, flow_gpm=6.0, drop_psi=5.0, drop_gpm=6.0, kwh_year=26, effects=(_e("iron", 0.88, 0.95, 0.98, _TYPICAL), _e("manganese", 0.4, 0.6, 0.8, _TYPICAL)), consumables=(_c("FE-A08L-M", "Filter media, renewed", "media", "310", 84, minutes=120, own=False),), for_what="iron where the ceiling is low"),
        _item("AC-U10", "Upflow calcite bed, 1 ft³", ULVENBY, "house", "690", NeutraliserFigures(style="upflow", volume_ft3=1.0, iron_max=0.3), installation="260", headroom_in=56.0, flow_gpm=7.0, drop_psi=2.0, drop_gpm=6.0, weight_lb=190.0, for_what="acid water, no drain or socket"),
        _item("AC-U15", "Upflow calcite bed, 1.5 ft³", ULVENBY, "house", "820", NeutraliserFigures(style="upflow", volume_ft3=1.5, iron_max=0.3), installation="260", headroom_in=60.0, flow_gpm=10.0, drop_psi=2.0, drop_gpm=8.0, weight_lb=260.0, for_what="acid water, no drain or socket"),
        _item("AC-B15", "Backwashing calcite bed, 1.5 ft³", ULVENBY, "house", "1140", NeutraliserFigures(style="backwashing", volume_ft3=1.5, backwash_gpm=8.0, backwash_min=14.0), installation="360", drain=True, socket=True, headroom_in=62.0, flow_gpm=10.0, drop_psi=3.0, drop_gpm=8.0, weight_lb=260.0, kwh_year=24, consumables=(_c("AC-B15-V", "Valve seals", "part", "95", 48, minutes=60, own=False),), for_what="acid water with iron or sediment"),
        _item("AC-B25", "Backwashing calcite bed, 2.5 ft³", ULVENBY, "house", "1420", NeutraliserFigures(style="backwashing", volume_ft3=2.5, backwash_gpm=8.5, backwash_min=14.0), installation="380", drain=True, socket=True, headroom_in=68.0, flow_gpm=15.0, drop_psi=3.0, drop_gpm=12.0, weight_lb=410.0, kwh_year=24, consumables=(_c("AC-B25-V", "Valve seals", "part", "95", 48, minutes=60, own=False),), for_what="acid water, larger homes"),
        _item("AC-M15", "Backwashing calcite and magnesia bed, 1.5 ft³", TESSABY, "house", "1210", NeutraliserFigures(style="backwashing", volume_ft3=1.5, magnesia_share=0.3, backwash_gpm=8.0, backwash_min=14.0), installation="360", drain=True, socket=True, headroom_in=62.0, flow_gpm=10.0, drop_psi=3.0, drop_gpm=8.0, weight_lb=260.0, kwh_year=24, for_what="very acid water"),
        _item("AC-FD", "Soda-ash feed pump with tank", HODMARROW, "house", "980", NeutraliserFigures(style="feed", volume_ft3=1.0), installation="420", socket=True, headroom_in=48.0, flow_gpm=15.0, drop_psi=0.5, drop_gpm=10.0, kwh_year=60, service_year="140", for_what="pH under 5"),
    ]


def _tannin_and_uv() -> list[Item]:
    rows = ((75.0, 6.0), (85.0, 9.0), (95.0, 12.0))
    kill = (_e("coliform", 0.99, 0.999, 1.0, _cert("NSF/ANSI 55 class A", "OA-55-0042")), _e("e_coli", 0.99, 0.999, 1.0, _cert("NSF/ANSI 55 class A", "OA-55-0042")))
    weak = (_e("coliform", 0.9, 0.99, 1.0, _STATES),)

    def uv(code: str, name: str, price: str, **f: Any) -> Item:
        lamp, sleeve, effects = f.pop("lamp"), f.pop("sleeve"), f.pop("effects")
        extra = {k: f.pop(k) for k in ("parts", "maker", "flow", "scope") if k in f}
        return _item(code, name, extra.pop("maker", TESSABY), extra.pop("scope", "house"), price, UvFigures(**f), installation="280", socket=True, flow_gpm=extra.pop("flow", 15.0), drop_psi=1.0, drop_gpm=10.0, headroom_in=14.0 if f["flat"] else 26.0, effects=effects, consumables=(_c(f"{code}-L", "Lamp", "lamp", lamp, 12, minutes=30, own=True, common=False), _c(f"{code}-S", "Quartz sleeve", "part", sleeve, 36, minutes=30, common=False)), for_what="microbes, at the lamp only", parts="single_source")

    return [
        _item("TN-10", "Tannin filter, 1 ft³ anion resin", ULVENBY, "house", "1390", TanninFigures(kind="tannin", resin_ft3=1.0, salt_lb=8.0, regen_gal=70.0, service_gpm=5.0, tannin_max=3.0), installation="420", drain=True, socket=True, headroom_in=62.0, flow_gpm=5.0, drop_psi=4.0, drop_gpm=5.0, weight_lb=240.0, kwh_year=26, effects=(_e("tannin", 0.7, 0.88, 0.95, _TYPICAL),), consumables=(_c("TN-10-R", "Anion resin, renewed", "resin", "460", 48, minutes=120, own=False),), for_what="tannin"),
        _item("TN-20", "Tannin filter, 2 ft³ anion resin, low tank", ULVENBY, "house", "2140", TanninFigures(kind="tannin", resin_ft3=2.0, salt_lb=14.0, regen_gal=120.0, service_gpm=10.0, tannin_max=3.0), installation="460", drain=True, socket=True, headroom_in=34.0, flow_gpm=10.0, drop_psi=4.0, drop_gpm=9.0, weight_lb=380.0, kwh_year=26, effects=(_e("tannin", 0.7, 0.88, 0.95, _TYPICAL),), consumables=(_c("TN-20-R", "Anion resin, 2 ft³, renewed", "resin", "880", 48, minutes=150, own=False),), for_what="tannin"),
        _item("TM-20", "Mixed tannin and softening bed, 2 ft³", BRINDLE, "house", "1580", TanninFigures(kind="mixed_bed", resin_ft3=0.7, cation_ft3=1.3, salt_lb=12.0, regen_gal=110.0, service_gpm=7.0, tannin_max=1.5), installation="420", drain=True, socket=True, headroom_in=62.0, flow_gpm=8.0, drop_psi=5.0, drop_gpm=8.0, weight_lb=360.0, kwh_year=26, effects=(_e("tannin", 0.5, 0.75, 0.9, _STATES),), consumables=(_c("TM-20-R", "Mixed resin, renewed", "resin", "720", 36, minutes=150, own=False, common=False),), parts="single_source", for_what="tannin and hardness in one tank"),
        _item("TC-T", "Tannin cartridge for the tap", QUORREL, "tap", "120", CartridgeFigures(media="tannin_resin"), installation="60", effects=(_e("tannin", 0.5, 0.8, 0.95, _STATES),), consumables=(_c("TC-T-C", "Tannin cartridge", "filter", "48", 6, 150),), for_what="tannin at the tap"),
        uv("UV-12H", "UV class A, 12 gpm, lies flat", "1390", device_class="A", monitored=True, table=rows, uvt_min=75.0, dose=40.0, lamp_length_in=34.0, flat=True, watts=60.0, lamp="118", sleeve="96", effects=kill),
        uv("UV-20H", "UV class A, 20 gpm, lies flat", "1980", device_class="A", monitored=True, table=((70.0, 9.0), (75.0, 12.0), (85.0, 16.0), (95.0, 20.0)), uvt_min=70.0, dose=40.0, lamp_length_in=44.0, flat=True, watts=95.0, lamp="165", sleeve="120", effects=kill, flow=22.0),
        uv("UV-15V", "UV class A, 15 gpm, upright", "1620", device_class="A", monitored=True, table=((75.0, 8.0), (85.0, 12.0), (95.0, 15.0)), uvt_min=75.0, dose=40.0, lamp_length_in=36.0, flat=False, watts=75.0, lamp="128", sleeve="98", effects=kill, flow=18.0),
        uv("UV-08B", "UV class B, 8 gpm, upright", "640", device_class="B", monitored=False, table=((85.0, 6.0), (95.0, 8.0)), uvt_min=85.0, dose=16.0, lamp_length_in=28.0, flat=False, watts=40.0, lamp="62", sleeve="54", effects=weak, maker=BRINDLE, flow=9.0),
        uv("UV-10N", "UV, plain ballast, 10 gpm", "480", device_class="none", monitored=False, table=((85.0, 7.0), (95.0, 10.0)), uvt_min=85.0, dose=30.0, lamp_length_in=30.0, flat=True, watts=40.0, lamp="48", sleeve="44", effects=weak, maker=BRINDLE, flow=11.0),
    ]


def _tap() -> list[Item]:
    lead58, arsenic58, fluoride58, nitrate58, tds58 = (_cert("NSF/ANSI 58", f"OA-58-{n:04d}") for n in (611, 612, 613, 614, 610))
    full = (
        _e("tds", 0.9, 0.94, 0.97, tds58), _e("hardness", 0.93, 0.97, 0.99, _TYPICAL), _e("sodium", 0.85, 0.92, 0.96, _TYPICAL), _e("iron", 0.85, 0.95, 0.99, _TYPICAL), _e("tannin", 0.8, 0.95, 0.99, _TYPICAL),
        _e("lead", 0.95, 0.98, 0.99, lead58), _e("copper", 0.93, 0.97, 0.99, lead58), _e("arsenic", 0.9, 0.95, 0.98, arsenic58), _e("fluoride", 0.88, 0.93, 0.96, fluoride58), _e("nitrate_n", 0.6, 0.75, 0.85, nitrate58), _e("coliform", 0, 0, 0, _NO_CLAIM),
    )
    plain = (_e("tds", 0.85, 0.92, 0.96, _cert("NSF/ANSI 58", "OA-58-0720")), _e("hardness", 0.9, 0.95, 0.98, _TYPICAL), _e("sodium", 0.8, 0.9, 0.95, _TYPICAL), _e("iron", 0.8, 0.93, 0.98, _TYPICAL), *_none("lead", "arsenic", "fluoride", "nitrate_n", "copper", "coliform"))

    def ro(code: str, name: str, price: str, parts: tuple[str, ...], installation: str = "220") -> Item:
        return _item(code, name, QUORREL, "tap", price, SystemFigures(parts=parts), installation=installation, warranty="2 years", for_what="nearly everything dissolved, at one tap")

    core = {"psi_min": 40.0, "drain": True}
    return [
        _item("RO-75M", "Membrane, 75 gal/day, with tank", QUORREL, "tap", "0", MembraneFigures(rated_gpd=75, rated_ratio=3.0, rejection=0.94, efficiency=0.22, tank_gal=3.0, precharge_psi=7.0, shutoff_share=0.66, psi_max=90), effects=full, consumables=(_c("RO-75M-M", "Membrane, 75 gal/day", "membrane", "95", 36, minutes=30), _c("RO-S", "Sanitising", "sanitising", "9", 12, minutes=40)), **core),
        _item("RO-75E", "Membrane, 75 gal/day, tank and permeate pump", QUORREL, "tap", "0", MembraneFigures(rated_gpd=75, rated_ratio=2.0, rejection=0.95, efficiency=0.42, tank_gal=3.0, precharge_psi=7.0, shutoff_share=0.8, permeate_pump=0.6, psi_max=90), effects=full, consumables=(_c("RO-75E-M", "Membrane, 75 gal/day", "membrane", "95", 36, minutes=30), _c("RO-S", "Sanitising", "sanitising", "9", 12, minutes=40), _c("RO-75E-P", "Permeate pump", "part", "78", 72, minutes=30, common=False)), **core),
        _item("RO-TL4", "Membrane, tankless, 400 gal/day", TESSABY, "tap", "0", MembraneFigures(rated_gpd=400, rated_ratio=1.0, rated_psi=80, rejection=0.93, efficiency=0.5, psi_max=90), effects=full, consumables=(_c("RO-TL4-M", "Membrane, 400 gal/day", "membrane", "140", 24, minutes=20, common=False),), socket=True, kwh_year=40, **core),
        _item("RO-50B", "Membrane, 50 gal/day, no shut-off", BRINDLE, "tap", "0", MembraneFigures(rated_gpd=50, rated_ratio=5.0, rejection=0.92, shut_off=False, tank_gal=3.0, precharge_psi=7.0, shutoff_share=0.66), effects=plain, consumables=(_c("RO-50B-M", "Membrane, 50 gal/day", "membrane", "58", 24, minutes=30),), **core),
        ro("DT-1", "Drinking tap: carbon, membrane, tank", "480", ("SD-T10", "CB-T", "RO-75M", "CP-T")),
        ro("DT-2", "Drinking tap: carbon, membrane, permeate pump", "640", ("SD-T10", "CB-T", "RO-75E", "CP-T")),
        ro("DT-3", "Drinking tap: tankless membrane", "890", ("CB-T", "RO-TL4"), "260"),
        ro("DT-0", "Drinking tap: plain membrane, no shut-off", "210", ("SD-T10", "CB-T", "RO-50B"), "180"),
        _item("DS-1", "Counter distiller, batch, 4 gal/day", HODMARROW, "tap", "420", DistillerFigures(kwh_gal=3.0, gal_day=4.0, residue_share=0.1), plumbed=False, socket=True, effects=(_e("tds", 0.97, 0.985, 0.995, _TESTED), _e("hardness", 0.98, 0.99, 0.999, _TYPICAL), _e("nitrate_n", 0.95, 0.98, 0.99, _cert("NSF/ANSI 62", "OA-62-0008")), _e("lead", 0.97, 0.99, 0.999, _cert("NSF/ANSI 62", "OA-62-0009")), _e("arsenic", 0.95, 0.98, 0.99, _STATES), _e("fluoride", 0.95, 0.98, 0.99, _STATES)), consumables=(_c("DS-1-C", "Carbon sachet", "filter", "9", 2), _c("DS-1-D", "Descaling", "service", "6", 1, minutes=20)), for_what="nearly everything, for power"),
        _item("FL-A", "Alumina cartridge for fluoride", TESSABY, "tap", "260", CartridgeFigures(media="alumina", ph_min=5.0, ph_max=7.5), installation="120", effects=(_e("fluoride", 0.7, 0.9, 0.97, _cert("NSF/ANSI 53", "OA-53-0301"), ph_min=5.0, ph_max=7.5),), consumables=(_c("FL-A-C", "Alumina cartridge", "filter", "88", 12, 450),), for_what="fluoride in acid to neutral water"),
        _item("FL-B", "Bone-char cartridge", BRINDLE, "tap", "160", CartridgeFigures(media="bone_char", ph_min=5.5, ph_max=8.0), installation="120", effects=(_e("fluoride", 0.3, 0.7, 0.9, _STATES, ph_min=5.5, ph_max=8.0),), consumables=(_c("FL-B-C", "Bone-char cartridge", "filter", "54", 6, 250, common=False),), parts="single_source", for_what="fluoride, fades"),
        _item("AS-T", "Iron-media cartridge for arsenic", TESSABY, "tap", "310", CartridgeFigures(media="iron_media", ph_min=5.5, ph_max=8.5), installation="120", effects=(_e("arsenic", 0.8, 0.93, 0.98, _cert("NSF/ANSI 53", "OA-53-0412"), ph_min=5.5, ph_max=8.5),), consumables=(_c("AS-T-C", "Iron-media cartridge", "filter", "110", 12, 600),), for_what="arsenic (As V)"),
        _item("PT-1", "Pitcher, 40 gal", QUORREL, "tap", "34", PitcherFigures(style="pitcher"), plumbed=False, effects=(_e("chlorine_free", 0.75, 0.9, 0.97, _cert("NSF/ANSI 42", "OA-42-0500")), _e("chlorine_combined", 0.5, 0.7, 0.85, _STATES), _e("tds", 0.0, 0.1, 0.2, _STATES), *_none("hardness", "lead", "arsenic")), consumables=(_c("PT-1-C", "Pitcher cartridge", "filter", "8.50", 2, 40, minutes=5),), for_what="taste, for one or two"),
        _item("PT-2", "Pitcher, exchange resin", BRINDLE, "tap", "46", PitcherFigures(style="pitcher", change_at_tds=6.0), plumbed=False, effects=(_e("tds", 0.9, 0.97, 1.0, _TESTED), _e("hardness", 0.9, 0.97, 1.0, _TYPICAL), *_none("lead", "chlorine_combined")), consumables=(_c("PT-2-C", "Exchange cartridge", "filter", "16", 2, 20, minutes=5, common=False),), parts="single_source", for_what="dissolved matter, dear to run on hard water"),
        _item("CT-1", "Counter filter, carbon block", HODMARROW, "tap", "118", PitcherFigures(style="counter"), plumbed=False, effects=(_e("chlorine_free", 0.9, 0.96, 0.99, _cert("NSF/ANSI 42", "OA-42-0520")), _e("chlorine_combined", 0.8, 0.9, 0.97, _cert("NSF/ANSI 42", "OA-42-0521")), _e("lead", 0.95, 0.98, 0.99, _cert("NSF/ANSI 53", "OA-53-0522")), *_none("hardness", "arsenic")), consumables=(_c("CT-1-C", "Carbon block", "filter", "42", 6, 500, minutes=10),), for_what="taste and lead, no plumbing"),
        _item("RF-1", "Refrigerator filter", BRINDLE, "tap", "0", PitcherFigures(style="refrigerator"), plumbed=False, effects=(_e("chlorine_free", 0.8, 0.93, 0.98, _STATES), *_none("lead", "tds", "chlorine_combined")), consumables=(_c("RF-1-C", "Refrigerator cartridge", "filter", "52", 6, 300, minutes=5, common=False),), parts="single_source", for_what="taste at the refrigerator"),
        _item("UV-T", "Small UV for the tap", TESSABY, "tap", "290", UvFigures(device_class="B", monitored=True, table=((75.0, 0.8), (95.0, 1.2)), uvt_min=75.0, dose=16.0, lamp_length_in=14.0, flat=True, watts=14.0), socket=True, effects=(_e("coliform", 0.9, 0.99, 1.0, _STATES),), consumables=(_c("UV-T-L", "Lamp", "lamp", "58", 12, minutes=20, common=False),), for_what="a second barrier behind a membrane"),
    ]


def _others() -> list[Item]:
    def other(code: str, name: str, kind: str, price: str, **more: Any) -> Item:
        sets = more.pop("sets_psi", None)
        return _item(code, name, more.pop("maker", HODMARROW), more.pop("scope", "house"), price, OtherFigures(kind=kind, sets_psi=sets), **more)  # type: ignore[arg-type]

    return [
        other("AE-1", "Aeration tank for radon", "aeration", "3900", installation="1200", drain=True, socket=True, headroom_in=70.0, flow_gpm=12.0, drop_psi=1.0, drop_gpm=10.0, kwh_year=420, service_year="180", effects=(_e("radon", 0.9, 0.97, 0.99, _TESTED),), for_what="radon, with a specialist"),
        other("NO-1", "Nitrate unit, 1 ft³", "nitrate", "1480", installation="420", drain=True, socket=True, headroom_in=62.0, flow_gpm=6.0, drop_psi=4.0, drop_gpm=6.0, effects=(_e("nitrate_n", 0.6, 0.8, 0.9, _TESTED),), for_what="nitrate, with a specialist"),
        other("AS-H", "Arsenic bed, whole house", "arsenic", "2650", installation="480", headroom_in=66.0, flow_gpm=9.0, drop_psi=4.0, drop_gpm=9.0, effects=(_e("arsenic", 0.8, 0.93, 0.98, _TESTED, ph_min=5.5, ph_max=8.0),), consumables=(_c("AS-H-M", "Iron media, renewed", "media", "980", 36, minutes=120, own=False),), for_what="arsenic, with a specialist"),
        other("CL-1", "Chlorine feed pump with contact tank", "chlorinator", "1350", installation="520", socket=True, headroom_in=66.0, flow_gpm=12.0, drop_psi=2.0, drop_gpm=10.0, kwh_year=60, service_year="120", for_what="disinfection, with a specialist"),
        other("PR-1", "Pressure regulator, 60 psi", "regulator", "95", installation="140", sets_psi=60.0, flow_gpm=25.0, for_what="static above 80 psi"),
        other("EX-1", "Thermal-expansion tank", "expansion", "75", installation="110", for_what="closed hot-water systems"),
        other("BY-1", "Untreated outdoor bypass", "bypass", "60", installation="160", for_what="garden taps stay raw"),
        other("BP-1", "Booster pump for a membrane", "booster", "165", installation="60", scope="tap", socket=True, sets_psi=75.0, kwh_year=30, maker=QUORREL, for_what="pressure under 40 psi"),
        other("PL-1", "Mineral and pH polish", "polish", "48", installation="20", scope="tap", maker=QUORREL, consumables=(_c("PL-1-C", "Mineral cartridge", "filter", "32", 12),), for_what="taste and pH behind a membrane"),
    ]


def demo_items() -> tuple[Item, ...]:
    """Every item of the demo catalogue."""
    return tuple(_sediment() + _carbon() + _softening() + _iron_and_acid() + _tannin_and_uv() + _tap() + _others())


__all__ = ["Need", "demo_items"]
