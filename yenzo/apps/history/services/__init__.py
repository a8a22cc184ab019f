"""Services of the shared history."""
