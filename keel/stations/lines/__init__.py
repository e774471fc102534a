"""Lines: the path from pickup to engine and back, and its pressures in every mode."""
