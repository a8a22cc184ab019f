"""The services of the desk."""
