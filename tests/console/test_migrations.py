"""What was kept under older names of the fields is there under the new ones."""

import uuid

import pytest
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

BEFORE = [("console", "0003_engine_of_answers")]
AFTER = [("console", "0004_draws_and_search_text")]


def migrated(to):
    executor = MigrationExecutor(connection)
    executor.migrate(to)
    return MigrationExecutor(connection).loader.project_state(to).apps


@pytest.mark.django_db(transaction=True)
def test_draws_and_what_is_searched_are_carried_over_in_lines_and_in_changes():
    try:
        apps = migrated(BEFORE)
        sheet = apps.get_model("console", "Sheet").objects.create()
        line = apps.get_model("console", "Line").objects.create(
            sheet=sheet, number=1, place=1, text="d = random()", token=uuid.uuid4(), revision=1,
            outcome={}, given=[["41"]], found="d = random() 0.41",
        )  # fmt: skip
        state = {"text": "d = random()", "given": [["41"]], "deleted": False}
        change = apps.get_model("console", "Change").objects.create(
            sheet=sheet, label="x", lines=[{"number": 1, "before": None, "after": state}]
        )
        apps = migrated(AFTER)
        line = apps.get_model("console", "Line").objects.get(pk=line.pk)
        assert (line.draws, line.search_text) == ([["41"]], "d = random() 0.41")
        [entry] = apps.get_model("console", "Change").objects.get(pk=change.pk).lines
        assert entry["after"] == {"text": "d = random()", "draws": [["41"]], "deleted": False}
    finally:
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())
