"""The server's door: routes, shapes of what goes in and out, and one table of errors. No formula here."""
