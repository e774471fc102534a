"""The leak test: what the tank bears, how long it takes, what readings prove, where to look."""
