"""What each demonstration is: its steps, cautions, and the two sentences that are
always beside it.
"""

from __future__ import annotations

from types import MappingProxyType

from ..record import record


@record
class About:
    """A demonstration in words. ``simulates``: what a simulation shows, empty where none would be
    honest; ``needs``: what has to stand on the table.
    """

    id: str
    name: str
    shows: str
    does_not_show: str
    steps: tuple[str, ...]
    cautions: tuple[str, ...] = ()
    simulates: str = ""
    needs: str = ""


@record
class NotOffered:
    """A demonstration that misleads, and why it is not here."""

    name: str
    why: str


_ALL = (
    About(
        id="side_by_side",
        name="Side by side",
        shows="How many dissolved solids each water holds, as we measured it.",
        does_not_show=(
            "Safety, hardness or chlorine. Water with minerals put back rightly reads higher."
        ),
        needs="A clean glass for each water, one meter, rinse water",
        steps=(
            "One clean glass for each water",
            "Rinse cup and probe between them",
            "The same meter for all",
        ),
        simulates="the water that a line is expected to give, dashed",
    ),
    About(
        id="lather",
        name="Lather",
        shows="How much soap this water takes before it lathers.",
        does_not_show="What your household will save: nobody washes by the drop.",
        needs="Two or three vials alike, soap with a dropper, a spoon",
        steps=(
            "The same amount of water in each vial",
            "Add soap, close, shake",
            "Does the lather hold for five seconds? If not, add more",
            "Single drops near the end narrow the range",
        ),
        cautions=("Soap stings in the eyes. Wipe spills: they are slippery.",),
        simulates="the drops expected from the hardness",
    ),
    About(
        id="colour",
        name="Color",
        shows="Whether the color is rust or tannin, and what a tannin resin takes out of it.",
        does_not_show="How long a filter lasts, or anything about health.",
        needs="White cups, the reducing powder, the small resin column",
        steps=(
            "Equal amounts in equal white cups",
            "Put one aside to stand",
            "Pour one through the small resin column",
            "Look from above, on white",
        ),
        cautions=("The reducing powder irritates: keep it dry, away from acids and bleach.",),
        simulates="the color that a line is expected to leave",
    ),
    About(
        id="chlorine",
        name="Chlorine",
        shows="The chlorine before and after carbon, and whether you can smell it.",
        does_not_show="Anything else that carbon does or does not take out.",
        needs="Chlorine kit, a glass from behind carbon",
        steps=(
            "Fresh water, within fifteen minutes",
            "Free chlorine within one minute, total after three",
            "The customer smells both glasses",
        ),
        cautions=("Reagents: keep them off skin and eyes. Never taste a glass that held reagent.",),
        simulates="the chlorine that a line is expected to leave",
    ),
    About(
        id="kettle",
        name="Scale in the kettle",
        shows="The scale this water can leave in a year, at most, for what you heat.",
        does_not_show="How much really settles: a part stays in the water you pour out.",
        steps=("Ask how much is heated on a day", "Read the figure together"),
        simulates="it is worked out from the readings, nothing is boiled",
    ),
    About(
        id="breath",
        name="Breath and pH",
        shows="That carbon dioxide makes water a little acid, and airing takes it out again.",
        does_not_show=(
            "That a water is good or bad: with few minerals any water does this. Nothing about"
            " health."
        ),
        needs="pH meter, two clean glasses, a fresh straw",
        steps=(
            "Measure pH at once, without stirring air into it",
            "Breathe out into one glass through a straw, a minute; measure again",
            "Pour the other glass to and fro twenty times; measure again",
            "The same on a softened or filtered water, if it is asked for",
        ),
        cautions=(
            "Breathe out, never draw in; a straw of one’s own, thrown away after.",
            "What was breathed into is not drunk.",
        ),
    ),
    About(
        id="distilling",
        name="Distilling",
        shows="That what is dissolved stays behind when water boils away.",
        does_not_show="Removal of what boils below water: some solvents come over with the steam.",
        needs="Flask, heater, condenser, jug, meter, tongs",
        steps=(
            "Measure the feed, and a drop of food color if you like",
            "Boil, condense, stop before it is dry",
            "Cool the residue to room temperature",
            "Measure distillate and residue, and both amounts",
        ),
        cautions=(
            "Hot glass and steam burn: tongs, and nobody within reach.",
            "An electrical heater stands dry, away from the sink, on a protected outlet.",
        ),
        simulates="the residue that the amounts lead to",
    ),
    About(
        id="tasting",
        name="Blind tasting",
        shows="Which water these tasters liked today, and how far they agree.",
        does_not_show="Much, with few tasters. Nothing about health.",
        needs="Fresh glasses, a marker, water that may be drunk",
        steps=(
            "Fresh glasses, poured out of sight",
            "Only letters on the glasses, a different order for each taster",
            "Each ranks alone; then the key is shown",
        ),
        cautions=("Only water that may be drunk is tasted.", "Nothing that held reagent."),
    ),
    About(
        id="through",
        name="Your water through this system",
        shows="What we expect at each point, from the readings of today.",
        does_not_show="What was not tested. Dashed glasses are expected, not measured.",
        steps=("Today, after each stage, at the tap",),
        simulates="it is a prediction; measure after it is fitted",
    ),
    About(
        id="glass",
        name="The glass",
        shows="What we measured in this water today.",
        does_not_show="Whether it is fit to drink. Open boxes in the foot are not tested.",
        steps=("Look, and read the words beside it",),
    ),
)
ABOUT = MappingProxyType({a.id: a for a in _ALL})

NOT_OFFERED = (
    NotOffered(
        name="Electrodes that turn water brown",
        why=(
            "The electrodes dissolve. The color is their iron, and any water with salts in it"
            " does it."
        ),
    ),
    NotOffered(
        name="Drops that make every tap look bad",
        why="They color harmless minerals. The result does not tell good water from bad.",
    ),
    NotOffered(
        name="Anything whose result does not depend on this water",
        why="It shows nothing about your water, so it is not shown here.",
    ),
)
