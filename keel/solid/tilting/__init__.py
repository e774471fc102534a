"""Moving a rigid thing past others while it tilts in one plane: where it may be, and a way from here to there."""
