"""Rendering: a page of a scene comes in, files in open formats go out. Back-ends emit; they decide nothing."""
