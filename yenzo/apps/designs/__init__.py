"""Designs: what a customer enters and uploads, and the slip that shows it."""
