"""The sentences of a cluster that cannot start."""

import unittest
from pathlib import Path

from zesty_glass.cli.cluster import disk_full, says_full


class FullDisk(unittest.TestCase):
    def test_both_wordings_are_known(self) -> None:
        for words in (
            "PANIC: could not write: No space left on device",
            (
                'FATAL: could not extend file "base/1/2691": wrote only 4096 of 8192 bytes\nHINT: '
                " Check free disk space."
            ),
        ):
            self.assertTrue(says_full(words))

    def test_another_fault_is_not_a_full_disk(self) -> None:
        self.assertFalse(says_full("FATAL: could not open file: Permission denied"))

    def test_the_sentence_names_the_folder(self) -> None:
        self.assertIn("/srv/water", disk_full(Path("/srv/water")))
