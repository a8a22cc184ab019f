"""Services of materials: one function for each change of state."""
