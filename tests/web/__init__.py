"""The front end's own reckoning (units, merge patches, snaps, layout), run in Node without a browser."""
