"""Sheets over bodies: how far one reaches, how it strains, and how a surface is parted and laid out flat."""
