"""How the tank is held: straps, loads, bolts, and what they sit on."""
