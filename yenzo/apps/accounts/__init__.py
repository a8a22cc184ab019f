"""Accounts: staff, their roles, and who may call which service."""
