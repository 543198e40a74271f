"""Small programs that replay the test vectors in each language."""
