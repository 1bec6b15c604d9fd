"""Kobrix: match the parts of a vehicle's brakes, one push followed from foot to road."""

__version__ = "0.8.0"
