"""The web: FastAPI over the core and the store. Thin: parse, call, answer."""
