"""Rules and arithmetic of the job. Standard library only; no I/O, no clock, no hidden
randomness.
"""
