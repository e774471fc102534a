"""The space in the vehicle: gaps, the way in, the largest tank that fits."""
