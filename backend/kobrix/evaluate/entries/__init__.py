"""Every entry of a setup as a person measures it: the sheet, and what follows from it at once."""
