"""After the signature: fitted, found short, followed up, as promised; a part that is changed."""

import tempfile
from uuid import UUID

from selenium.webdriver.support.ui import Select

from tests.browser.case import BrowserCase
from tests.documents.test_photographs import photo
from zesty_glass.demo.homes import uid
from zesty_glass.work.jobs import job_id


def job(proposal):
    return f"/jobs/{job_id(UUID(uid(proposal)))}"


class AfterTheSale(BrowserCase):
    def test_from_the_signed_proposal_to_as_promised(self):
        b = self.b
        self.go(f"/proposals/{uid('home-2-proposal')}")
        b.click("button", "Open the job")
        b.find("h1", "Open the pipe and fit the line")
        b.click("button", "Step 1 is done")
        b.find("button", "Step 2 is done")
        b.click("button[aria-pressed=true]", "Photograph the place")
        b.find("button", "Step 1 is done")
        b.click("button", "Plan")
        b.type("form input[required][maxlength='200']", "The plumber's own list.")
        b.click("button", "It is fitted")
        b.find("button", "Put it right")
        b.click("button", "Proof")
        b.see("Nothing measured behind it yet")
        self.measure("pH, house", "6.3")
        b.see("A bypass is open.")
        b.find("h1", "1 of 1 falls short")
        b.click("button", "Follow it up")
        b.type("form input", "The bypass was open.")
        b.click("button", "Close it")
        self.measure("pH, house", "7.4")
        b.find("h1", "It keeps its promise so far")
        b.see("as promised")
        self.assertEqual(b.axe(), [])
        self.reported("Hardness, house", "22")
        b.find("h1", "It keeps its promise so far")
        b.click("button", "All 3 readings")
        b.click("li button", "Take it back")
        b.click("[role=dialog] button", "Mistyped")
        b.see("crossed out: mistyped")

    def reported(self, what, value):
        """A laboratory's report, for what no kit closes."""
        b = self.b
        Select(b.find("select")).select_by_visible_text(what)
        Select(b.driver.find_elements("css selector", "form select")[1]).select_by_visible_text(
            "a laboratory’s report"
        )
        b.type("input[inputmode=decimal]", value)
        b.type("input[required]:not([inputmode])", "Skerne Laboratories")
        b.click("button", "Keep the reading")

    def measure(self, what, value):
        b = self.b
        Select(b.find("select")).select_by_visible_text(what)
        b.type("input[type=number]", value)
        b.click("button", "Keep the reading")

    def test_a_step_is_photographed_and_the_picture_taken_away(self):
        b = self.b
        self.go(f"{job('home-2-proposal')}?part=steps&sheet=pipe")
        with tempfile.NamedTemporaryFile(suffix=".jpg") as file:
            file.write(photo(3000, 2000))
            file.flush()
            b.find("input[type=file]").send_keys(file.name)
            b.click("button[aria-label^='Picture taken']")
        b.see("Taken")
        self.assertEqual(b.axe(), [])
        b.until(lambda d: d.find_element("css selector", "[role=dialog] img").size["width"] > 300)
        b.driver.execute_script("window.confirm = () => true")
        b.click("button", "Take it away")
        b.until(
            lambda d: not d.find_elements("css selector", "button[aria-label^='Picture taken']")
        )

    def test_what_is_due_is_changed_and_moves(self):
        b = self.b
        self.go("/")
        b.find("section[aria-label='What is due'] a", "Odile Brackenreed")
        b.see("41 days over")
        self.assertEqual((b.axe(), b.out_of_reach()), ([], []))
        self.go("/due")
        b.see("41 days over")
        self.assertEqual((b.axe(), b.out_of_reach()), ([], []))
        b.click("a", "Odile Brackenreed")
        b.find("h1", "1 overdue")
        b.click("button", "Changed")
        b.type("form input:not([type=date])", "half empty")
        b.click("button", "Keep the change")
        b.find("h1", "Next: Media top-up")
        b.see("before: half empty")
        b.click("button", "Take it back")
        b.find("h1", "1 overdue")
        b.click("button", "See the steps")
        b.find("h1", "Top up the media")

    def test_homes_are_found_and_looked_back_at(self):
        b = self.b
        self.go("/homes")
        b.type("input[type=search]", "kettleby")
        b.find("h1", "1 home")
        self.assertIn("find=kettleby", b.driver.current_url)
        self.assertEqual((b.axe(), b.out_of_reach()), ([], []))
        b.click("a", "Orrin Kettleby")
        b.find("h1", "over the years")
        b.see("Fitted: Softener and drinking tap")
        self.assertEqual((b.axe(), b.out_of_reach()), ([], []))
        b.click("button", "Calendar")
        b.click("button", "New address")
        path = b.find("input[readonly]").get_attribute("value")
        self.assertIn(b"VEVENT", self.fetch(path.removeprefix(self.served.base)))
        self.go("/track")
        b.find("button", "2 homes")
        self.assertEqual((b.axe(), b.out_of_reach()), ([], []))
        b.click("button", "2 homes")
        b.click("[role=dialog] a", "Marl End")
        b.see("Pale: promised")

    def test_a_calendar_address_is_made_and_taken_back(self):
        b = self.b
        self.go("/due")
        b.click("button", "Calendar")
        b.click("button", "New address")
        path = b.find("input[readonly]").get_attribute("value")
        self.assertIn("/api/feed/", path)
        self.assertIn(b"VEVENT", self.fetch(path.removeprefix(self.served.base)))
        b.click("button", "Take it back")
        b.until(lambda d: "made " not in b.text())

    def test_what_falls_short_is_said_with_its_follow_up(self):
        b = self.b
        self.go(job("past-4-proposal") + "?part=proof")
        b.find("h1", "1 of 1 falls short")
        self.assertEqual((b.axe(), b.out_of_reach()), ([], []))
        b.see("Followed up")
