"""What was worked out before, by what it was worked out from, and no more than so much of it."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock

MOST_BYTES = 64_000_000  # of one process


class Held:
    """Bodies by their key, the least used forgotten first."""

    def __init__(self, most: int = MOST_BYTES) -> None:
        self._most, self._held = most, 0
        self._bodies: OrderedDict[str, bytes] = OrderedDict()
        self._lock = Lock()

    def get(self, key: str) -> bytes | None:
        """The body of a key, which counts as used now."""
        with self._lock:
            body = self._bodies.get(key)
            if body is not None:
                self._bodies.move_to_end(key)
            return body

    def put(self, key: str, body: bytes) -> None:
        """Keep a body; one that is too large by itself is not kept."""
        if len(body) > self._most // 4:
            return
        with self._lock:
            self._held -= len(self._bodies.pop(key, b""))
            self._bodies[key] = body
            self._held += len(body)
            while self._held > self._most:
                _, gone = self._bodies.popitem(last=False)
                self._held -= len(gone)

    def __len__(self) -> int:
        return len(self._bodies)
