"""The reference of everything that has a name: fields, controls, quantities, findings, trade words; generated from
their definitions.
"""
