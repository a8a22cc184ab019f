"""Services of production: one function for each change of state."""
