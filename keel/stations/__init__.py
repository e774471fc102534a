"""The stations of the work: each is registered once, with its rules and its remedies."""
