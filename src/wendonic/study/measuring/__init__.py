"""Measurements that several quantities share: one walk, one jump, one turn of the pad."""
