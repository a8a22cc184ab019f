"""Gateways: services outside the workshop, each behind an interface with a simulated stand-in beside it."""
