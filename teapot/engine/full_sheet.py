"""A sheet with all that the engine has."""

from teapot.engine.aids.pictures import pictures_of
from teapot.engine.handbook.search import functions_for
from teapot.engine.sheet import sheet
from teapot.engine.sheet.settings import Settings


class FullSheet(sheet.Worksheet):
    """A sheet that asks the handbook what may be meant by a name which nothing has, and
    knows of which of its answers there are pictures."""

    def __init__(self, settings: Settings = Settings()) -> None:  # noqa: B008 - it is frozen
        super().__init__(settings)
        self.suggested = functions_for
        self.pictures_of = pictures_of
