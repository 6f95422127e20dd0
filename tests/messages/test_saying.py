"""A text is said by the message that made it, or stays as it is; never half."""

import doctest
import re
import unittest

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.messages import extraction, page, saying, spoken
from zesty_glass.messages.extraction import messages_of
from zesty_glass.messages.saying import Speaker, filled, words_of

MESSAGES = {
    "{0} {1}: wants {2}.": "{0} {1}: necesita {2}.",
    "{0} not tested: {1}.": "{0}: sin analizar: {1}.",
    "{0} bags of salt are carried a year.": "Se cargan {0} sacos de sal al año.",
    "It sends {0} gal a year to the drain.": "Envía {0} gal al año al desagüe.",
    "{0}under {1}{2}": "{0}menos de {1}{2}",
    "at most {0}": "como máximo {0}",
    "Ask the diet. A membrane is a way out.": "Pregunte por la dieta. Una membrana es una salida.",
    "iron": "hierro",
    "Iron": "Hierro",
    "hardness": "dureza",
    "years": "años",
    "and": "y",
    "Nothing needed.": "No se necesita nada.",
}
S = Speaker(
    MESSAGES,
    filled(MESSAGES),
    words_of(MESSAGES),
    frozenset({"mg/L", "gpg", "gal"}),
    frozenset({"Softener, 1 ft³, metered"}),
)


def load_tests(loader, tests, pattern):
    for module in (page, saying, spoken, extraction):
        tests.addTests(doctest.DocTestSuite(module))
    return tests


class Said(unittest.TestCase):
    def said(self, text, want):
        self.assertEqual(S.say(text), want)

    def test_by_the_message_with_its_values(self):
        self.said(
            "Iron 3.4 mg/L: wants at most 2 mg/L.", "Hierro 3.4 mg/L: necesita como máximo 2 mg/L."
        )

    def test_an_empty_value_is_one(self):
        self.said("under 1 gpg", "menos de 1 gpg")

    def test_where_the_first_letter_was_made_great(self):
        self.said("Hardness not tested: iron.", "Dureza: sin analizar: hierro.")

    def test_sentence_by_sentence_and_a_value_is_no_sentence(self):
        self.said(
            "Nothing needed. 14 bags of salt are carried a year.",
            "No se necesita nada. Se cargan 14 sacos de sal al año.",
        )

    def test_sentences_that_are_one_message_together(self):
        self.said(
            "It sends 40 gal a year to the drain. Ask the diet. A membrane is a way out.",
            "Envía 40 gal al año al desagüe. Pregunte por la dieta. Una membrana es una salida.",
        )

    def test_lists_and_numbers_with_their_unit(self):
        self.said("iron, hardness and iron", "hierro, dureza y hierro")
        self.said("10 years", "10 años")

    def test_names_stay_as_they_are_written(self):
        self.said(
            "Softener, 1 ft³, metered: Iron not tested: hardness.",
            "Softener, 1 ft³, metered: Hierro: sin analizar: dureza.",
        )

    def test_somebody_s_words_stay_in_their_quotes(self):
        self.said("“The bath looks like tea” and iron", "“The bath looks like tea” y hierro")

    def test_what_has_no_message_stays_whole(self):
        for text in (
            "Iron not tested: nobody looked.",
            "Nothing needed. Or is there?",
            "449 mg/L",
            "",
            "Ottoline Marrash",
        ):
            self.said(text, text)

    def test_a_message_that_would_change_a_number_is_not_said(self):
        loses = {"{0} of {1}": "{0}"}
        wrong = Speaker(loses, filled(loses), words_of(loses))
        self.assertEqual(wrong.say("3 of 5"), "3 of 5")

    def test_a_text_without_end_stays_as_it_is(self):
        endless = "iron, hardness and " * 400 + "Iron: Iron, Iron or a diet"
        self.assertEqual(S.say(endless), endless)
        self.said("iron, hardness and iron", "hierro, dureza y hierro")

    @given(st.text(alphabet="iron hades.,:;()“”0123456789{}%\n", max_size=60))
    def test_numbers_stay_whatever_is_said(self, text):
        def digits(said):
            return sorted(re.findall(r"\d+(?:[.,]\d+)*", said))

        self.assertEqual(digits(S.say(text)), digits(text))


class Messages(unittest.TestCase):
    def test_every_way_to_read_a_text_is_tried(self):
        both = {"{0} and {1}": "{1} y {0}", "a and b": "a, b", "c": "c"}
        by = Speaker(both, filled(both), words_of(both))
        self.assertEqual(by.say("a and b and c"), "c y a, b")

    def test_of_a_module_are_its_texts_and_not_its_names(self):
        code = '''
"""About it."""
NAME = "as the household says"
def f(x, unit):
    """What it does."""
    return f"{x:.1f} {unit} at most, {'brine' if x else 'no brine'}", x["key"], "#10302A", "a_b"
SAID = "Flush {flush} gal."
'''
        self.assertEqual(
            messages_of(code),
            [
                "as the household says",
                "Flush {0} gal.",
                "{0} {1} at most, {2}",
                "brine",
                "no brine",
            ],
        )
