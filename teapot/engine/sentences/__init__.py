"""What is said of problems: every kind of error with its code and its sentence, by subject.

A sentence stands here whole, with the facts that are filled in between braces, so that all can be
read in one go.  ``code`` names the kind for programs; kinds that differ in their sentence alone
share it.
"""
