"""Catalogue: products, materials, set-up drafts and revisions."""
