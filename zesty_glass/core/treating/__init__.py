"""What treats water: technologies, items, systems and what becomes of the water in them."""

from . import stages as stages  # the registry hands itself in wherever a part of this is used
