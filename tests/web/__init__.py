"""The front end's own calculation (units, merge patches, snaps, layout), run in Node without a browser."""
