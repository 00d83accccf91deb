"""The handbook: an entry for each function, constant, operator, form and command.

``entries``    what an entry holds, and all of them
``record``     what is told of an operator or a form
``operators``  the records of the operators
``forms``      the records of the forms of an answer
``search``     finding an entry by its name, a synonym or a purpose
"""
