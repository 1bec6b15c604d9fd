"""The open formats: what a file may hold, and how it is read."""

LARGEST_BYTES = 16_000_000  # of one file
DESCRIBED = "KOBRIX_DESCRIBED"  # set in the environment where the shapes of files and answers are wanted, not what they hold
