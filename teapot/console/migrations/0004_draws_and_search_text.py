"""The fields are named by what they hold: draws, and the text that is searched."""

from django.db import migrations


def _rename_in_changes(apps, old, new):
    """Changes hold the states of lines, by which they are undone."""
    for change in apps.get_model("console", "Change").objects.iterator():
        states = [
            state
            for entry in change.lines
            for state in (entry["before"], entry["after"])
            if state and old in state
        ]
        for state in states:
            state[new] = state.pop(old)
        if states:
            change.save(update_fields=["lines"])


class Migration(migrations.Migration):

    dependencies = [("console", "0003_engine_of_answers")]

    operations = [
        migrations.RenameField("line", "given", "draws"),
        migrations.RenameField("line", "found", "search_text"),
        migrations.RunPython(
            lambda apps, _: _rename_in_changes(apps, "given", "draws"),
            lambda apps, _: _rename_in_changes(apps, "draws", "given"),
        ),
    ]
