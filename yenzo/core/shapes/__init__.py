"""Shapes: outlines, boxes and transforms in millimetres."""
