"""The outbox as staff see it."""
