"""The `kobrix` command."""
