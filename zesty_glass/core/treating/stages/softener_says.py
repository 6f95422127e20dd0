"""What a softener's checks say."""

from __future__ import annotations

from ..checks import Says

CHECKS = {
    "softener.too_small": Says(
        "It would regenerate every {have} days, and less than 2 days is too small.", "More resin."
    ),
    "softener.breaks_through": Says(
        (
            "Too small: this home uses {load} grains of capacity a day and the softener holds"
            " {have}. Hard water would get through every day."
        ),
        "More resin.",
    ),
    "softener.wasteful": Says(
        (
            "It would last {have} days, but it regenerates after 14 all the same and wastes salt"
            " and water."
        ),
        "Choose less resin or a lower salt dose.",
    ),
    "softener.clock": Says(
        "On its clock of every {need} days, {have} % of the water comes out hard.",
        "Set it to {fit} days, or choose a metered one.",
    ),
    "softener.worst_end": Says(
        "At the worst end of the readings it would regenerate every {have} days.",
        "Do a finer hardness test, or choose the next size up.",
    ),
    "softener.particulate_iron": Says(
        "Rusted iron fouls resin.", "Put an iron filter before it.", asks=("iron",)
    ),
    "softener.tannin": Says(
        "Tannin binds iron, and bound iron passes the resin and fouls it. How much is not known.",
        (
            "Have a laboratory measure iron before and after filtering, or try a demonstration"
            " column."
        ),
    ),
    "softener.tannin_maybe": Says(
        (
            "Tannin may be at the 0.5 mg/L from which it binds iron, and bound iron passes the"
            " resin."
        ),
        "Do a finer tannin test, or have a laboratory test it.",
    ),
    "softener.diet": Says(
        "Softening adds about {have} mg of {salt} to each liter of softened water.",
        (
            "If anyone here is on a low-sodium or low-potassium diet, has kidney disease or takes"
            " medicine that holds potassium, ask their doctor first. The kitchen cold tap can stay"
            " unsoftened, or get an RO system."
        ),
    ),
    "softener.sodium_total": Says(
        (
            "With what the water has already, that makes {total} mg/L of sodium at every softened"
            " tap."
        ),
        "A strict diet counts it from {strict} mg/L, and you taste it from about {taste} mg/L.",
    ),
    "softener.own_sodium": Says(
        "The water’s own sodium comes on top, and it is not tested.",
        "Have a laboratory test sodium.",
    ),
    "softener.efficiency": Says(
        (
            "It is rated at {have} grains a pound of salt; NSF/ANSI 44 asks for 3,350 grains a"
            " pound of salt."
        ),
        "A lower dose.",
    ),
    "softener.open_ended": Says(
        "The hardness test has no upper end.", "Dilute and repeat before sizing."
    ),
    "softener.dose": Says(
        "A dose of {have} lb/ft³ is outside 4 to 15.",
        "Use the item’s own table, or a dose within it.",
    ),
}
