"""What goes wrong, and what easily does: rules that find what is meant, and mends that say it.

Each module is a subject.  What is said stands in :mod:`teapot.engine.sentences`.

===================  ==================================================================
``unreadable``       a token that cannot stand where it does; operands side by side
``words_for_signs``  ``5 choose 2``, ``45° to rad``
``foreign_syntax``   spellings of other programs: ``x += 1``, ``5 -> x``
``foreign_values``   spellings that hang on values: ``Z1 || Z2``, ``w.mean()``
``foreign_choices``  ``if x > 2 then 3 else 4``
``foreign_names``    names of functions in other programs, and what is not here
``unknown_names``    names that nothing has
``unlike_units``     units that do not go together
``syntax_warnings``  what is easily read otherwise than it was meant
``value_warnings``   what shows only once the values are known
===================  ==================================================================
"""
