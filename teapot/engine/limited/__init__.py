"""Work under limits: nothing that is typed takes too long, or too much memory.

``bounds``  the limits of time and memory, and how a process puts itself under them
``child``   a process that does one piece of work after another, and is ended when it
            runs over
``sheet``   a sheet in such a process, as the command line uses it
"""
