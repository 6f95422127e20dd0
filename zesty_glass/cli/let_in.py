"""``./zesty let-in EMAIL``: a code for somebody whom nobody of their firm can let in again."""

from __future__ import annotations

import argparse
import sys
from uuid import UUID, uuid4

from ..records import signing
from ..records.db import make_engine, make_sessions
from ..work import people, second_factor
from ..work.person import Person
from .say import Stop, guarded
from .settings import database


def main(arguments: list[str]) -> int:
    """Print a code that lets somebody choose a new password; the old one works until then."""
    parser = argparse.ArgumentParser(prog="./zesty let-in")
    parser.add_argument("email", help="the address they sign in with")
    parser.add_argument(
        "--without-second-factor",
        action="store_true",
        help="their telephone and the codes on paper are lost: take the second factor off too",
    )
    given = parser.parse_args(arguments)
    with make_sessions(make_engine(database())).begin() as db:
        user = signing.user_by_email(db, given.email)
        if user is None or not user.active:
            raise Stop(f"Nobody signs in with {given.email}.")
        me = Person(id=UUID(int=0), firm_id=user.firm_id, name="./zesty let-in", role="manager")
        made = people.reset(db, me, user.id, uuid4(), by_mail=False)
        if given.without_second_factor:
            second_factor.take_off(db, me, user)
        ends = made.row.expires_at
    print(
        f"{made.code}\n\nGive it to {user.name} by telephone: on the sign-in page, “I have a code"
        f" from my manager”. It ends on {ends:%d %B %Y at %H:%M} UTC."
    )
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
