"""The words of lines, for the search of the shelf: kept by SQLite itself (FTS5), so that no
way of writing a line leaves them behind."""

from django.db import migrations

FIELDS = "text, search_text"
OLD = "INSERT INTO line_words(line_words, rowid, text, search_text) VALUES ('delete', old.id, old.text, old.search_text);"
NEW = "INSERT INTO line_words(rowid, text, search_text) VALUES (new.id, new.text, new.search_text);"

MAKE = [
    "CREATE VIRTUAL TABLE line_words USING fts5(text, search_text, content='console_line', content_rowid='id', tokenize=\"unicode61 remove_diacritics 2 tokenchars '_'\")",
    f"CREATE TRIGGER line_words_new AFTER INSERT ON console_line BEGIN {NEW} END",
    f"CREATE TRIGGER line_words_gone AFTER DELETE ON console_line BEGIN {OLD} END",
    f"CREATE TRIGGER line_words_other AFTER UPDATE OF text, search_text ON console_line WHEN old.text <> new.text OR old.search_text <> new.search_text BEGIN {OLD} {NEW} END",
    "INSERT INTO line_words(line_words) VALUES ('rebuild')",
]
UNMAKE = [
    "DROP TRIGGER line_words_new",
    "DROP TRIGGER line_words_gone",
    "DROP TRIGGER line_words_other",
    "DROP TABLE line_words",
]


class Migration(migrations.Migration):
    dependencies = [("console", "0005_folders_records_runs")]
    operations = [migrations.RunSQL(MAKE, UNMAKE)]
