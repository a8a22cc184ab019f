"""The desk's pages: orders, one order, its files."""
