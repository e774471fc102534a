"""What goes through the skin: hangers, seats, filling against venting."""
