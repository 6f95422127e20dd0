"""What whoever has a customer's link is told of the customer."""

import unittest
from dataclasses import fields, replace

from tests.core.presenting.test_offer import VISITS, offer
from zesty_glass.core.home import Customer, Relation
from zesty_glass.work.sharing import _for_the_customer

WHOLE = Customer(
    name="Ottoline Marrash",
    phone="555 0143",
    email="ottoline@marrash.example",
    part=Relation.TENANT,
    language="es",
    reminders=False,
)


class Redacted(unittest.TestCase):
    def test_the_name_and_nothing_else(self):
        for f in fields(Customer):  # a new field is looked at here
            self.assertNotEqual(getattr(WHOLE, f.name), getattr(Customer(name=""), f.name), f.name)
        one = offer(VISITS[0], VISITS[0].options[0].id)
        shown = _for_the_customer(replace(one, customer=WHOLE)).customer
        self.assertEqual(shown, Customer(name=WHOLE.name))
