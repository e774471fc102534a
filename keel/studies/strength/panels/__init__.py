"""The flat faces of a tank and its partitions under pressure: how each is held, what it bears, what it wants."""
