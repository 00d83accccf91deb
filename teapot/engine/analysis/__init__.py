"""What is proved of an expression in a bound name: its zeros, integrals, derivatives.

An expression is taken apart once (:mod:`terms`), and worked out in whatever kind of ball is wanted
(:mod:`rings`): real ones, complex ones, power series.
"""
