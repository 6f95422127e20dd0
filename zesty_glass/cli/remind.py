"""``./zesty remind``: one message to every customer about what falls due within the fortnight."""

from __future__ import annotations

import argparse
import sys
from uuid import UUID

from sqlalchemy import select

from ..records.db import make_engine, make_sessions
from ..records.models import Firm
from ..work import jobs, mailing, reminding
from ..work.person import Person
from .say import guarded
from .settings import database, mails


def main(arguments: list[str]) -> int:
    """Remind, for every firm; meant to be run once a day, and harmless when run twice."""
    argparse.ArgumentParser(prog="./zesty remind").parse_args(arguments)
    # where a mail server is named, the server's outbox sends it
    sessions = make_sessions(make_engine(database()), **{mailing.CONFIGURED: mails()})
    with sessions() as db:
        firms = db.execute(select(Firm.id, Firm.name)).all()
    for firm, name in firms:
        who = Person(id=UUID(int=0), firm_id=firm, name="./zesty remind", role="manager")
        with sessions.begin() as db:
            many = reminding.remind(db, who, jobs.today())
        print(f"{name}: {'1 reminder' if many == 1 else f'{many} reminders'} sent")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
