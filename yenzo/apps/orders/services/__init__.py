"""Services of orders: one function for each change of state."""
