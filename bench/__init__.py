"""Benchmarks of the budgets; `make bench` prints them as a table."""
