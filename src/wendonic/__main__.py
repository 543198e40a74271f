"""`python -m wendonic` is `wendonic`."""

from wendonic.cli.main import main

main()
