"""What the slip asks besides its form: files, and pictures of an album."""
