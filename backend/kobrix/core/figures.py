"""What answers to questions are made of: figures by the names of the open format, levels, and how near is at a limit."""

Figures = dict[str, object]
EPS = 1e-9  # in every comparison with a limit
LEVELS = ("good", "caution", "danger")


def worst(levels: list[str]) -> str:
    """The worst of levels, good for none.

    `levels` [names].
    """
    return max(levels, key=LEVELS.index, default="good")
