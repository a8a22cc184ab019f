"""Pages for signing in and for what went wrong."""
