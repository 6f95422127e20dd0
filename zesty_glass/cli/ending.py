"""A command that is told to end takes with it what it started: databases, servers, folders."""

from __future__ import annotations

import atexit
import os
import signal
import subprocess
import sys
from threading import Thread
from typing import Any, NoReturn

#: told to end by whom: a service manager or ``kill``, and a terminal that was closed
SIGNALS = (signal.SIGTERM, signal.SIGHUP)
WAIT_S = 20.0
_children: set[subprocess.Popen[str]] = set()
#: by which signal this process was told to end at once, in the middle of whatever it was at
told: list[int] = []


def _exit(number: int, _: Any) -> NoReturn:
    raise SystemExit(128 + number)


def by_exit() -> None:
    """End by an exit, on whose way out everything that was opened is closed."""
    for number in SIGNALS:
        if signal.getsignal(number) is not signal.SIG_IGN:  # as under nohup: it goes on
            signal.signal(number, _exit)


def _at_once(number: int, _: Any) -> None:
    """Tests catch an exit: children are told, what waits for the end runs, and that is all.

    What waits for the end has ``WAIT_S``: it may wait for what was interrupted.
    """
    told.append(number)
    for child in list(_children):
        child.terminate()
    for child in list(_children):
        try:
            child.wait(WAIT_S)
        except subprocess.TimeoutExpired:
            child.kill()
    sys.stdout.flush()
    closing = Thread(target=atexit._run_exitfuncs, daemon=True)
    closing.start()
    closing.join(WAIT_S)
    if os.getpgrp() == os.getpid():  # browsers too
        os.killpg(0, signal.SIGKILL)
    os._exit(128 + number)


def at_once() -> None:
    """End without an exit that a test could catch; Ctrl-C too, which children in sessions of their
    own do not hear.
    """
    for number in (*SIGNALS, signal.SIGINT):
        if signal.getsignal(number) is not signal.SIG_IGN:
            signal.signal(number, _at_once)


def run(command: list[str], **how: Any) -> subprocess.CompletedProcess[str]:
    """Run a child to its end; it is told when this process is told to end."""
    child = subprocess.Popen(command, text=True, start_new_session=True, **how)
    _children.add(child)
    try:
        said, wrong = child.communicate()
    finally:
        _children.discard(child)
    return subprocess.CompletedProcess(command, child.returncode, said, wrong)
