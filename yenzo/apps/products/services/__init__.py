"""Services of products: one function for each change of state."""
