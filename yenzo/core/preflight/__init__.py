"""Preflight: a scene and the limits of its methods come in; findings and a verdict go out."""
