"""What a softener's checks say."""

from __future__ import annotations

from ..checks import Says

CHECKS = {
    "softener.too_small": Says(
        "Would regenerate every {have} days: below 2 days is too small.", "More resin."
    ),
    "softener.breaks_through": Says(
        (
            "Cannot: a day’s load is {load} grains, it holds {have}, and hard water breaks "
            "through within a day."
        ),
        "More resin.",
    ),
    "softener.wasteful": Says(
        "Would last {have} days; it regenerates after 14 all the same, and wastes salt and water.",
        "Less resin, or a lower salt dose.",
    ),
    "softener.clock": Says(
        "On its clock every {need} days it runs hard for {have} % of the water.",
        "Set it to {fit} days, or meter it.",
    ),
    "softener.worst_end": Says(
        "At the worst end of the readings it would regenerate every {have} days.",
        "A finer hardness test, or the next size up.",
    ),
    "softener.particulate_iron": Says(
        "Rusted iron fouls resin.", "An iron filter ahead of it.", asks=("iron",)
    ),
    "softener.tannin": Says(
        "Tannin binds iron: what is bound passes the resin, and fouls it. How much is not known.",
        "Iron by laboratory before and after filtering; a trial on a small column.",
    ),
    "softener.tannin_maybe": Says(
        "Tannin may be at the 0.5 mg/L from which it binds iron: what is bound passes the resin.",
        "A finer tannin test, or the laboratory.",
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
        "With the water’s own that makes {total} mg/L sodium at every softened tap.",
        "A strict diet counts from {strict} mg/L; it is tasted from about {taste} mg/L.",
    ),
    "softener.own_sodium": Says(
        "The water’s own sodium comes on top: it is not tested.", "Laboratory: sodium."
    ),
    "softener.efficiency": Says(
        "Rated {have} grains a pound of salt; NSF/ANSI 44 asks 3,350 grains a pound of salt.",
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
