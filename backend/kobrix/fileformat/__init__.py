"""The open formats: what a file may hold, and how it is read."""

LARGEST_BYTES = 16_000_000  # of one file
