"""Making the tank: which operations a design takes, in which order, behind which gates."""
