"""Artwork: outside files come in; facts and pictures that the core made itself, or a refusal in words, go out."""
