"""Pictures of goods, of uploads and of typefaces."""
