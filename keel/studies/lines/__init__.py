"""The fuel path from pickup to engine and back: where it lies, what it joins, what flows in it in every mode."""
