"""``./zesty add-firm``: a firm and its first manager in the database named in ZESTY_DATABASE."""

from __future__ import annotations

import argparse
import getpass
import os
import sys
from datetime import UTC, datetime
from uuid import uuid4

from ..core.errors import RuleError
from ..core.own_limits import FirmRules
from ..core.rules import Settings
from ..demo.kits import usual_kits
from ..documents.codec import plain
from ..records import signing
from ..records.db import make_engine, make_sessions, migrate
from ..records.models import Firm, InstrumentRow
from ..work import signing_in
from ..work.examples import add_examples
from .say import fail, guarded
from .settings import database


def main(arguments: list[str]) -> int:
    """Add a firm; the password is asked for, or taken from ZESTY_PASSWORD."""
    parser = argparse.ArgumentParser(prog="./zesty add-firm")
    parser.add_argument("name", help="name of the firm")
    parser.add_argument("email", help="address of its first manager")
    parser.add_argument("manager", help="name of its first manager")
    given = parser.parse_args(arguments)
    url = database()
    password = os.environ.get("ZESTY_PASSWORD") or getpass.getpass("Password of the manager: ")
    migrate(url)
    engine = make_engine(url)
    try:
        with make_sessions(engine).begin() as db:
            if signing.user_by_email(db, given.email) is not None:
                return fail(f"{given.email} signs in already. Give another address.")
            firm = Firm(
                id=uuid4(),
                name=given.name,
                settings=plain(Settings()),
                rules=plain(FirmRules()),
                version=1,
            )
            db.add(firm)
            db.flush()
            add_examples(db, firm.id)
            signing_in.add_user(db, firm.id, given.email, given.manager, "manager", password)
            db.add_all(
                InstrumentRow(
                    id=uuid4(), firm_id=firm.id, key=k.id, position=i, data=plain(k), version=1
                )
                for i, k in enumerate(usual_kits(datetime.now(UTC).date()))
            )
    except RuleError as e:
        return fail(str(e))
    print(
        f"{given.name} added; {given.email} may sign in. Its catalog holds examples of invented"
        " makers: keep, change or empty it under Kits, catalog, limits."
    )
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
