"""Carved tiers: the outline of every layer, rooms and openings in the cake, templates, and the work of carving."""
