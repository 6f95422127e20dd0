"""The application's own description of itself: what the page's client is made from."""

from tests.api.client import ApiCase


class Wire(ApiCase):
    def test_no_two_things_share_a_name(self):
        # a name that is taken twice is written out with its module
        names = self.app.openapi()["components"]["schemas"]
        self.assertEqual([n for n in names if "__" in n], [])
