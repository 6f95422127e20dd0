"""A manager invites somebody; who is invited chooses a password, signs in, and sets up a second
factor.
"""

import unittest

import pyotp
from selenium.webdriver.common.virtual_authenticator import VirtualAuthenticatorOptions

from tests.browser.case import BrowserCase
from tests.browser.driving import Browser
from tests.browser.serving import Served
from zesty_glass.demo.load import EMAIL, MANAGER_EMAIL, PASSWORD

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
        manager.go(f"{self.served.base}/monday")
        manager.see("Who is where today")
        manager.see("09:00 visit")
        self.assertEqual(manager.axe(), [])
        manager.click("button[aria-label='The month before']")
        manager.find("summary", "payments due this month")
        self.assertEqual(manager.errors(), [])


class Passkeys(unittest.TestCase):
    def test_added_with_the_password_used_without_it_and_removed(self):
        served = Served(name="localhost")  # keys are bound to a name
        self.addCleanup(served.close)
        b = Browser()
        self.addCleanup(b.close)
        device = VirtualAuthenticatorOptions(
            transport=VirtualAuthenticatorOptions.Transport.INTERNAL,
            has_resident_key=True,
            has_user_verification=True,
            is_user_verified=True,
        )
        b.driver.add_virtual_authenticator(device)
        b.sign_in(served.base, EMAIL, PASSWORD)
        b.go(f"{served.base}/account")
        b.type("[aria-labelledby=passkeys] input:not([type])", "Tablet in the van")
        b.type("[aria-labelledby=passkeys] input[type=password]", PASSWORD)
        b.click("button", "Add a passkey")
        b.see("Tablet in the van, added")
        self.assertEqual(b.axe(), [])
        b.driver.delete_all_cookies()
        b.go(f"{served.base}/sign-in")
        b.click("button", "Use a passkey")
        b.find("h1", "Today")
        b.go(f"{served.base}/account")
        b.see("last used")
        b.click("button", "Remove Tablet in the van")
        b.until(lambda _: "Tablet in the van" not in b.text())
        b.driver.delete_all_cookies()
        b.go(f"{served.base}/sign-in")
        b.click("button", "Use a passkey")
        b.see("opens nothing here")
        b.driver.set_user_verified(False)
        b.click("button", "Use a passkey")
        b.see("The device did not sign")
        self.assertEqual(b.axe(), [])


if __name__ == "__main__":
    unittest.main()
