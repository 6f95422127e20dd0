"""Long work in processes of its own, with limits on time, memory and on how much of it waits.

A PDF or a search takes a second where a reading takes milliseconds, and what a stranger wrote into
a file decides how much it takes. Here it can neither hold up other requests nor take the machine
with it: a worker that is over its time is ended, one that wants more memory than it may is refused
it, and when enough is waiting already more is turned away. Time is the processor's, so that a busy
machine ends nothing that would have been done; by the clock there is several times as much.
"""

from __future__ import annotations

import atexit
import math
import multiprocessing
import os
import resource
import signal
import threading
from collections.abc import Callable
from concurrent.futures import Future
from functools import cache
from importlib import import_module
from typing import ParamSpec, TypeVar

from pebble import ProcessExpired, ProcessPool

P = ParamSpec("P")
T = TypeVar("T")

MOST_BYTES = 2 * 1024**3  # address space of a worker
BEHIND = 10  # niceness of a worker: whoever answers a touch goes first
MOST_WAITING = 12  # at once for one kind of work, the one under way included
BY_THE_CLOCK = 4  # times as long as the processor's time, for work that has to wait for it


class Busy(Exception):
    """Enough of this waits already."""


class TooMuch(Exception):
    """The work took more time or memory than it may."""


def _begin(modules: tuple[str, ...]) -> None:
    """A worker begins; what its work needs is imported before any of it is timed."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    os.nice(BEHIND)
    resource.setrlimit(resource.RLIMIT_AS, (MOST_BYTES, MOST_BYTES))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    for name in modules:
        import_module(name)


def _bounded(seconds: float, what: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
    """``what`` in the worker, which ends when it has taken so much of the processor's time [s]."""
    spent = resource.getrusage(resource.RUSAGE_SELF)
    most = math.ceil(spent.ru_utime + spent.ru_stime + seconds)
    resource.setrlimit(resource.RLIMIT_CPU, (most, resource.RLIM_INFINITY))
    return what(*args, **kwargs)


class Apart:
    """A worker process for one kind of work; started with the first of it.

    Args:
        seconds: of the processor's time, for one piece of it [s]. modules: what a worker imports
            before its first piece.
    """

    def __init__(
        self, seconds: float, most_waiting: int = MOST_WAITING, modules: tuple[str, ...] = ()
    ) -> None:
        self.seconds, self._modules = seconds, modules
        self._places = threading.Semaphore(most_waiting)
        self._pool: ProcessPool | None = None
        self._lock = threading.Lock()

    def _started(self) -> ProcessPool:
        with self._lock:
            if self._pool is None or not self._pool.active:
                self._pool = ProcessPool(
                    max_workers=1,
                    initializer=_begin,
                    initargs=[self._modules],
                    context=multiprocessing.get_context("spawn"),
                )
            return self._pool

    def run(self, what: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """What ``what`` returns, worked out in the worker.

        Raises:
            Busy: too much waits already. TooMuch: over its time or memory.
        """
        if not self._places.acquire(blocking=False):
            raise Busy
        try:
            future: Future[T] = self._started().schedule(
                _bounded,
                args=[self.seconds, what, *args],
                kwargs=kwargs,
                timeout=BY_THE_CLOCK * self.seconds,
            )
            return future.result()
        except (TimeoutError, MemoryError, ProcessExpired) as e:
            raise TooMuch from e
        finally:
            self._places.release()

    def warm(self) -> None:
        """Start the worker before there is work; nobody waits for it."""
        self._started().schedule(os.getpid)

    def stop(self) -> None:
        """End the worker."""
        with self._lock:
            if self._pool is not None:
                self._pool.stop()  # type: ignore[no-untyped-call]
                self._pool.join()
                self._pool = None


@cache
def papers() -> Apart:
    """Where PDFs are made."""
    return _ended_with_the_process(Apart(seconds=30, modules=("zesty_glass.documents.pdf",)))


@cache
def searches() -> Apart:
    """Where lines are searched for."""
    return _ended_with_the_process(Apart(seconds=30))


def _ended_with_the_process(made: Apart) -> Apart:
    atexit.register(made.stop)
    return made
