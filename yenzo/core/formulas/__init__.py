"""Formulas over named entries: text comes in, a number goes out."""
