"""A manager invites somebody; who is invited chooses a password, signs in, and sets up a second
factor.
"""

import unittest

import pyotp

from tests.browser.case import BrowserCase
from tests.browser.driving import Browser
from zesty_glass.demo.load import MANAGER_EMAIL, PASSWORD

NEW = "three plain words"


class People(BrowserCase):
    def test_invited_joined_and_with_a_second_factor(self):
        manager = Browser()
        self.addCleanup(manager.close)
        manager.sign_in(self.served.base, MANAGER_EMAIL, PASSWORD)
        manager.go(f"{self.served.base}/people")
        manager.see("Invite somebody")
        manager.type("section[aria-labelledby=invite] .field:nth-child(1) input", "Tamsel Orrick")
        email = "tamsel@larkspout.example"
        manager.type("section[aria-labelledby=invite] .field:nth-child(2) input", email)
        manager.click("button", "Make a code to print or tell")
        code = manager.find("[data-code]").text
        self.assertEqual(manager.axe(), [])
        theirs = Browser()
        self.addCleanup(theirs.close)
        theirs.go(f"{self.served.base}/join/{code}")
        theirs.see("you are invited to Larkspout")
        theirs.type("input[type=password]", NEW)
        theirs.click("button", "Choose it")
        theirs.see("Your password is chosen")
        theirs.sign_in(self.served.base, email, NEW)
        theirs.go(f"{self.served.base}/account")
        theirs.click("button", "Set it up")
        secret = theirs.find("form p.num").text
        theirs.type("input[autocomplete=one-time-code]", pyotp.TOTP(secret).now())
        theirs.click("button", "Put it in force")
        theirs.see("each opens once")
        self.assertEqual(theirs.axe(), [])
        manager.go(f"{self.served.base}/people")
        manager.see("with a second factor")
        self.assertEqual(manager.errors(), [])


if __name__ == "__main__":
    unittest.main()
