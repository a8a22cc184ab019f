"""The page that tells how the files are, and what goes when."""
