"""The arithmetic of the craft: pure functions and frozen types, importing nothing outside this folder."""
