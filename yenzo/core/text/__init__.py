"""Text: a string and a font come in, outlines with their measures go out."""
