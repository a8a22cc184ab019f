"""Uploads, pictures and the try-out slip."""
