"""Shop: the pages customers see."""
