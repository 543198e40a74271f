"""What there is to know by name: fields, controls, quantities, findings, words of the trade; made from where each is
defined.
"""
