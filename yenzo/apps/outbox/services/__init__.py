"""Services of the outbox."""
