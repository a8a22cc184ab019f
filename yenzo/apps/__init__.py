"""The Django apps, by audience."""
