"""The one way a value object is declared in the core."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import MISSING, dataclass, fields
from typing import Annotated, Any, TypeVar, dataclass_transform, get_args, get_type_hints

from .bounds import bounded

_T = TypeVar("_T")
ERASED = "(erased)"


class Personal:
    """Marks what goes with the person whom somebody erases.

    Args:
        instead: what stands in the place of a text that was erased; ``{n}`` is the how-manieth of
            its list it is, where those of a list must be told apart.
    """

    def __init__(self, instead: str = ERASED) -> None:
        self.instead = instead


#: free words about a person or their home, or typed by whoever: erased with the person
Words = Annotated[str, Personal()]


class TaggedBy:
    """Says which field tells the kinds of a union apart, so that an edge need not try them one by
    one.

    The method is what validation at the edges looks for; the core itself knows nothing of it.
    """

    def __init__(self, field: str) -> None:
        self.field = field

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> dict[str, Any]:
        choices = {
            tag: handler.generate_schema(kind)
            for kind in get_args(source)
            for tag in get_args(get_type_hints(kind)[self.field])
        }
        return {"type": "tagged-union", "choices": choices, "discriminator": self.field}


@dataclass_transform(frozen_default=True, kw_only_default=True)
def record(cls: type[_T]) -> type[_T]:
    """Declare a frozen, slotted, keyword-only value object.

    Unknown fields are refused where the object is validated at an edge, so a
    misspelt key in a file is an error and is never dropped silently.
    """
    config: dict[str, Any] = {"extra": "forbid", "ser_json_inf_nan": "null", "allow_inf_nan": False}
    cls.__pydantic_config__ = config  # type: ignore[attr-defined]
    cls.__get_pydantic_core_schema__ = classmethod(_with_bounds)  # type: ignore[attr-defined]
    made = dataclass(frozen=True, slots=True, kw_only=True)(cls)
    setattr(made, "__init__", _quick_init(made))  # noqa: B010
    return made


def _with_bounds(cls: type[Any], source: Any, handler: Any) -> dict[str, Any]:
    """The record's schema at an edge, with each field as far as ``core/bounds.py`` lets it go."""
    schema: dict[str, Any] = handler(source)
    bounded(handler.resolve_ref_schema(schema))
    return schema


def _quick_init(cls: type[Any]) -> Callable[..., None]:
    """An ``__init__`` that fills the slots through their descriptors.

    A frozen dataclass pays ``object.__setattr__`` for every field; a search makes millions of these
    objects, and this is more than twice as fast (``./zesty bench``, "record"). The fields stay
    frozen.
    """
    names: dict[str, Any] = {"_factory": MISSING}
    arguments, lines = [], []
    for f in fields(cls):
        names[f"_set_{f.name}"] = cls.__dict__[f.name].__set__
        value = f.name
        if f.default_factory is not MISSING:
            names[f"_new_{f.name}"] = f.default_factory
            arguments.append(f"{f.name}=_factory")
            value = f"_new_{f.name}() if {f.name} is _factory else {f.name}"
        elif f.default is not MISSING:
            names[f"_is_{f.name}"] = f.default
            arguments.append(f"{f.name}=_is_{f.name}")
        else:
            arguments.append(f.name)
        lines.append(f"    _set_{f.name}(self, {value})")
    if hasattr(cls, "__post_init__"):
        lines.append("    self.__post_init__()")
    head = f"def __init__(self, *, {', '.join(arguments)}):" if arguments else "def __init__(self):"
    exec(
        "\n".join([head, *(lines or ["    pass"])]), names
    )  # the text is made of field names of this class alone
    init: Callable[..., None] = names["__init__"]
    init.__qualname__ = f"{cls.__qualname__}.__init__"
    return init
