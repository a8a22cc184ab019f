"""Asking: a set-up and raw entries come in; what is asked now, and what is wrong with it, goes out."""
