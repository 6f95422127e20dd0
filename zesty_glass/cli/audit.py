"""``./zesty audit``: whether the audit trail of every firm is as it was written."""

from __future__ import annotations

import argparse
import os
import sys

from sqlalchemy import func, select

from ..records import audit
from ..records.db import make_engine, make_sessions
from ..records.models import Audit, Firm
from ..work import seals
from .say import guarded
from .settings import database, secrets


def main(arguments: list[str]) -> int:
    """Verify the chain of every firm; the exit status is 1 when one is broken."""
    argparse.ArgumentParser(prog="./zesty audit").parse_args(arguments)
    url = database()
    keys = seals.every_key(*secrets()) if os.environ.get("ZESTY_SECRET") else ()
    broken = 0
    with make_sessions(make_engine(url))() as db:
        for firm, name in db.execute(select(Firm.id, Firm.name)).all():
            rows = db.scalar(select(func.count()).select_from(Audit).where(Audit.firm_id == firm))
            last = db.scalar(
                select(Audit.hash).where(Audit.firm_id == firm).order_by(Audit.id.desc()).limit(1)
            )
            found = list(audit.breaks(db, firm, keys))
            broken += len(found)
            for text in found[:20]:
                print(f"{name}: {text}")
            print(f"{name}: {rows} rows, {'all in order' if not found else 'NOT in order'}")
            print(f"  the last hash is {last or 'none'}: note it outside of this database")
    return 1 if broken else 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
