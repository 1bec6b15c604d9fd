"""The work itself: the steps that a change of parts asks for and their order, and what may be driven half done."""
