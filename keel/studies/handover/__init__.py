"""Hand-over: joints of the line as they are looked at, the first fill step by step."""
