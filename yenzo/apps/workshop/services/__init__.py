"""Services of the workshop's own settings."""
