"""Pricing: a set-up and what is asked come in; a quote with its lines goes out."""
