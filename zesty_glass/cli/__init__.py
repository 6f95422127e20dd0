"""The one command, ``./zesty``: one file a command. ``machine`` and ``cluster`` need the standard
library only.
"""
