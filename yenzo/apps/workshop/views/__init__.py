"""The page of the workshop's own settings."""
