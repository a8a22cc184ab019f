"""Yenzo: a web application for workshops that personalize goods."""
