"""Outbox: every mail that goes out, from being wanted to being sent, and what could not be sent."""
