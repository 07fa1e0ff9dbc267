"""Bring over installations whose landed migrations were edited afterwards: what their tables lack is added before anything else runs.

Two migrations (logbook 0001 and 0006) were changed after they had landed. A database made by an earlier wording says that they
are applied, but lacks tables and columns they now name, or has columns they no longer name. Since then `tools/landed.py` keeps
every landed migration as it is.
"""

from django.db import connections


def repair(sender, apps, using, **_):
    """Before a migration runs: make the tables what the migrations already applied say that they are."""
    connection = connections[using]
    models = [model for model in apps.get_models() if model._meta.app_label == "logbook"]
    tables = connection.introspection.table_names()
    if "logbook_call" not in tables:
        return
    for model in models:
        table = model._meta.db_table
        if table not in tables:
            with connection.schema_editor() as editor:
                editor.create_model(model)
            continue
        with connection.cursor() as cursor:
            # The names alone: what else is told of a column is read out of the words that made its table, a second for all of them.
            cursor.execute(f"SELECT * FROM {connection.ops.quote_name(table)} LIMIT 0")
            there = {column[0] for column in cursor.description}
        wanted = {field.column: field for field in model._meta.local_concrete_fields}
        for column, field in wanted.items():
            if column not in there:
                _add(connection, model, field)
        for column in there - set(wanted):
            with connection.cursor() as cursor:
                cursor.execute(f"ALTER TABLE {connection.ops.quote_name(table)} DROP COLUMN {connection.ops.quote_name(column)}")


def _add(connection, model, field):
    """Add one column with its default; a table is not made anew while others of its columns are missing too."""
    with connection.schema_editor() as editor:
        definition, given = editor.column_sql(model, field, include_default=True)
        definition = definition % tuple(editor.quote_value(value) for value in given)
        editor.execute(f"ALTER TABLE {editor.quote_name(model._meta.db_table)} ADD COLUMN {editor.quote_name(field.column)} {definition}")
