"""Pictures of the site, drawn as it is built, from demo data and probes."""
