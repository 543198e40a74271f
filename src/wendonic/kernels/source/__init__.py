"""One bind entry to one value: centre, gate, dead zone, curve, opposites, ramp."""
