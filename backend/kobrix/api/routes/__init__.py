"""One module per resource."""
