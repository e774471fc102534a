"""Ways of tubes and hoses in space: rounded corners, bend tables, cut lengths, clocking. No document, no rules."""
