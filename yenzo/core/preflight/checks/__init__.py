"""The checks of preflight, one file each."""
