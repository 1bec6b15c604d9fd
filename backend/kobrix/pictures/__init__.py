"""Photographs as they are kept: turned upright, made small enough, without what a camera writes beside them."""
