"""Packs as the workshop sees and fetches them."""
