"""Everything from a device to its raw values: control names, events, held state, sources, stand-ins."""
