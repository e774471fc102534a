"""The slosh run: what the fuel does over a manoeuvre or a lap, and when the engine starves."""
