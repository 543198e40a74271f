"""What several quantities are read from: one walk, one jump, one turn of the pad."""
