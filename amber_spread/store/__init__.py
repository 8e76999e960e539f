"""Orders and their revisions in PostgreSQL. Knows the types of the core and nothing of the web."""
