"""The needle against the litres: senders and calibrations."""
