"""Everything between a device and a raw value: control names, events, held state, sources, stand-ins."""
