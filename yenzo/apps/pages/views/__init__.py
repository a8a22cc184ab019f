"""Pages that belong to no other app: what went wrong, and the glossary."""
