"""The customer's pages."""
