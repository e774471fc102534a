"""Losses of fittings as K, of the velocity head in their bore.

References
----------
I. E. Idelchik, Handbook of Hydraulic Resistance: a smooth quarter bend of two bores' radius 0.15 to 0.3, a hose end
with a small step 0.1 to 0.3, a sharp entry 0.5, an exit 1.0. The upper ends are taken: no hose end is quite smooth.
"""

END_K = 0.3
BEND_K = 0.3
ENTRY_K = 0.5
EXIT_K = 1.0
