"""Simulated devices and services, each behind the small interface that a real one would fill."""
