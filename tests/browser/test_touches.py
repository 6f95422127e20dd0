"""From the first word to a signed proposal, every key and touch counted: with wet hands each is one
too many.
"""

import unittest

from selenium.webdriver.common.action_chains import ActionChains

from tests.browser.serving import Served
from tests.browser.test_bench import Counting, whole_set
from zesty_glass.demo.load import EMAIL, PASSWORD

NEW_VISIT, WHOLE_SET, SIGNED = 25, 60, 130
NAME = "Ottoline Vex"  # twelve letters


def new_visit(b: Counting) -> None:
    """Name, source and complaint: all else is asked by the step that needs it."""
    b.touch("a", "Start a visit")
    b.find("h1", "Who, where")
    b.press(*NAME)
    b.touch("[role=radio]", "Town main")
    b.touch("button", "White crust")
    b.touch("button", "Add it")
    b.touch("button", "Start the visit")
    b.find("h1,p", "Draw a glass first")


def draw(b: Counting) -> None:
    """The raw glass, and the first station."""
    b.touch("button", "Draw a glass")
    b.touch("[role=dialog] button", "Kitchen cold")


def propose(b: Counting) -> None:
    """The first line that the tool proposes, compared and written down."""
    b.touch("nav a", "System")
    b.touch("button", "Let the tool propose systems")
    b.touch("[role=dialog] button", "Take it")
    b.touch("a", "Compare")
    b.touch("button[aria-label^='Recommend A']")
    b.touch("a", "Make the offer")
    b.touch("button", "Write the proposal")
    b.see("Draft: not presented yet")


def sign(b: Counting) -> None:
    """Accepted and signed by the customer, drawn on the screen."""
    b.touch("button", "Present it")
    b.touch("button", "Accept and sign")
    b.touch("form input.input")
    b.find("form input.input").clear()
    b.press(*NAME)
    b.count += b.click_each("fieldset input[type=checkbox]")
    pad = b.find("svg[aria-label='Sign here']")
    drawn = ActionChains(b.driver).move_to_element_with_offset(pad, -90, 10)
    drawn.click_and_hold().move_by_offset(60, -25).move_by_offset(50, 30).release().perform()
    b.count += 1
    b.touch("form button", "Sign")
    b.see("it cannot be changed")


def counted() -> dict[str, int]:
    """Keys and touches of each part, from the first word to the signature."""
    served, b = Served(), Counting()
    try:
        b.sign_in(served.base, EMAIL, PASSWORD)
        out, before = {}, 0
        for name, part in (
            ("new visit", new_visit),
            ("draw a glass", draw),
            ("whole set of tests", whole_set),
            ("propose", propose),
            ("sign", sign),
        ):
            part(b)
            out[name] = b.count - before
            before = b.count
        return out | {"to a signed proposal": b.count}
    finally:
        b.close()
        served.close()


class Touches(unittest.TestCase):
    def test_few_enough(self):
        out = counted()
        self.assertLessEqual(out["new visit"], NEW_VISIT, out)
        self.assertLessEqual(out["whole set of tests"], WHOLE_SET, out)
        self.assertLessEqual(out["to a signed proposal"], SIGNED, out)


if __name__ == "__main__":
    unittest.main()
