"""Services of stock: one function for each change of state."""
