"""Will it go together: clearances, joints, lines, hoses, plates, donor parts, the parking brake.

Lengths are in millimetres here, as on the drawings and gauges that the answers are held against. Each function takes plain
numbers and records, and returns the figures by the names that the open format gives them.
"""

Figures = dict[str, object]
EPS = 1e-9  # in every comparison with a limit
LEVELS = ("good", "caution", "danger")


def worst(levels: list[str]) -> str:
    """The worst of `levels`, good for none."""
    return max(levels, key=LEVELS.index, default="good")
