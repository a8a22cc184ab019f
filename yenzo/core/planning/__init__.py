"""Planning: pieces of orders come in; tickets and packs for production go out."""
