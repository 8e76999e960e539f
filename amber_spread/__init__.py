"""Amber Spread: what a decorated cake needs, worked out live."""
