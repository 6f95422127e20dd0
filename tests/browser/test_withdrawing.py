"""A proposal after it was presented: a second revision, what moved on, withdrawn with a reason."""

from uuid import UUID

from tests.browser.case import BrowserCase
from zesty_glass.demo.homes import uid
from zesty_glass.records.models import OptionRow

PROPOSAL = f"/proposals/{uid('home-1-proposal')}"
VISIT = f"/visits/{uid('home-1-visit')}"


class AfterPresenting(BrowserCase):
    def test_what_moved_on_is_said_and_the_next_revision_takes_its_place(self):
        b = self.b
        with self.served.app.state.sessions.begin() as db:
            row = db.get(OptionRow, UUID(uid("home-1-option-b")), with_for_update=True)
            row.data = {**row.data, "stages": row.data["stages"][:2]}
            row.version += 1
        self.go(PROPOSAL)
        b.see("Look at this again before anybody signs")
        b.see("stages")
        self.assertEqual(b.axe(), [])
        b.click("a", "Write the next revision")
        b.see("Prices, taxes and limits of")
        b.click("button", "Write the next revision")
        b.see("Draft: not presented yet")
        b.click("button", "Present it")
        b.see("Presented, until")
        self.go(PROPOSAL)
        b.see("Replaced by a newer revision")
        b.click("a", "Open the newer one")
        b.click("button", "Withdraw")
        b.type("[role=dialog] input", "The maker ended it.")
        b.click("[role=dialog] button", "Withdraw")
        b.see("Withdrawn")
        b.see("The maker ended it.")
        self.assertEqual(b.errors(), [])
