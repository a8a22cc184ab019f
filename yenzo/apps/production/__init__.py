"""Production: packs for the decorators."""
