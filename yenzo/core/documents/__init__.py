"""The two open documents, set-up and entries: JSON comes in, frozen typed models go out."""
