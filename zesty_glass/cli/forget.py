"""``./zesty forget``: erase the people whom a firm keeps no longer than its own rule says."""

from __future__ import annotations

import argparse
import sys
from uuid import UUID

from sqlalchemy import select

from ..core.rules import Settings
from ..documents.codec import load
from ..records.db import make_engine, make_sessions
from ..records.models import Firm
from ..work import personal, seals
from ..work.person import Person
from .say import guarded
from .settings import database, secrets


def main(arguments: list[str]) -> int:
    """Erase, for every firm that has set how many years it keeps people; meant to be run once a
    day.
    """
    argparse.ArgumentParser(prog="./zesty forget").parse_args(arguments)
    keys = seals.keys_from(*secrets())
    sessions = make_sessions(make_engine(database()), **{seals.KEYS: keys})
    with sessions() as db:
        firms = db.execute(select(Firm.id, Firm.name, Firm.settings)).all()
    for firm, name, raw in firms:
        years = load(Settings, raw).keep_years
        if not years:
            print(f"{name}: keeps people for good")
            continue
        who = Person(id=UUID(int=0), firm_id=firm, name="./zesty forget", role="manager")
        with sessions.begin() as db:
            many = personal.forget_old(db, who, years)
        print(f"{name}: {many} homes erased, last seen more than {years} years ago")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
