"""What a proposal was worked out from, kept and sealed with it: its job is made from that alone,
whatever becomes of the visit and of the catalog afterward.
"""

from __future__ import annotations

import json

from sqlalchemy.orm import Session

from ..core.assess import assess
from ..core.errors import RuleError
from ..core.treating.line import LineReport
from ..core.visit import Visit, of_one_line
from ..documents.codec import load_json, to_json
from ..records.models import ProposalRow
from . import visiting
from .mending import worked
from .person import Person


def basis_of(visit: Visit, option: str) -> str:
    """What a line of a visit is worked out from, as it is kept."""
    return to_json(of_one_line(visit, option)).decode()


def line_of(visit: Visit, option: str) -> LineReport:
    """A visit's line, worked out; RuleError when it is not there any more."""
    report = next((o for o in worked(visit, assess).options if o.id == option), None)
    if report is None or report.line is None:
        raise RuleError(
            "job.line",
            "The line that was accepted is not in this visit any more.",
            "proposal",
            "Put it back into the visit, then make the job.",
        )
    return report.line


def signed_visit(db: Session, who: Person, row: ProposalRow) -> Visit:
    """The visit as it was when a proposal was written.

    Of a proposal that an older release wrote, it is the visit as it is now, where its line is still
    the one that was signed.

    Raises:
        RuleError: there is no such line any more, or it is another one now.
    """
    if row.basis:
        kept: Visit = load_json(Visit, row.basis, "basis")
        return kept
    visit, _ = visiting.document(db, who, visiting.get(db, who, row.visit_id))
    option = row.data["recommended"]
    if [s.code for s in line_of(visit, option).stages] != _signed_codes(row, option):
        raise RuleError(
            "job.moved_on",
            "The line in the visit is not the one that was signed any more.",
            "proposal",
            "Put the line back as it was signed, then make the job.",
        )
    return visit


def _signed_codes(row: ProposalRow, option: str) -> list[str]:
    offered = json.loads(row.data["snapshot"])["options"]
    return [s["code"] for o in offered if o["id"] == option for s in o["stages"]]
