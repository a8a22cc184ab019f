"""Services of the catalogue: one function for each change of state."""
