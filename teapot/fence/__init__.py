"""The fence between what people type and the web: evaluators in processes of
their own, each with a limit of time and of memory.

``evaluators``  used by the web process: picks an evaluator, ends one that runs over
``worker``      runs inside an evaluator: keeps sheets in memory, answers jobs

The limits themselves stand in :mod:`teapot.engine.limited`, which the command line shares.
"""
