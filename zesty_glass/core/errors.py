"""Errors of the core: each says what is wrong, where, and what to do."""

from __future__ import annotations

__all__ = ["RuleError"]


class RuleError(ValueError):
    """Input that a rule of the job cannot work with.

    Args:
        code: stable identifier, e.g. ``drops.negative``.
        what: what is wrong, in a plain sentence.
        where: the field or the thing it was found in.
        remedy: what to do about it.
        also: what else is wrong with the same input, each found by itself.
    """

    def __init__(
        self,
        code: str,
        what: str,
        where: str = "",
        remedy: str = "",
        also: tuple[RuleError, ...] = (),
    ) -> None:
        super().__init__(" ".join(part for part in (what, remedy) if part))
        self.code = code
        self.what = what
        self.where = where
        self.remedy = remedy
        self.also = also

    def __reduce__(self) -> tuple[type[RuleError], tuple[object, ...]]:
        return (type(self), (self.code, self.what, self.where, self.remedy, self.also))
