"""Numbered SQL files; each runs once, in order, with its number recorded in the same transaction."""
