"""What it comes to: litres and kilograms, metres and minutes, money."""
