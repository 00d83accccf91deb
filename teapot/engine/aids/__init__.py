"""What helps a person beside the answers themselves.

``typing``       what is shown while a line is typed; it asks the two that follow
``completion``   what the word at the caret may become
``hint``         the card for the function and the argument at the caret
``curve``        the curve of a function, as points
``number_line``  where rounding sends a number
``dial``         an angle in all units, with its sine, cosine and tangent
"""
