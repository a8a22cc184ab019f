"""The seller's pages."""
