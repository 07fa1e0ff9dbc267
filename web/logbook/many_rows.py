"""Many new rows at once: everything about them is made ready before the data is held, so that others write meanwhile."""

from django.db import connection


def made_ready(rows):
    """Return the INSERT of some new objects of one model, and their values row by row; neither is sent yet."""
    options = rows[0]._meta
    fields = [field for field in options.concrete_fields if not field.primary_key]
    quoted = connection.ops.quote_name
    columns, places = ", ".join(quoted(field.column) for field in fields), ", ".join(["%s"] * len(fields))
    values = [[field.get_db_prep_save(field.pre_save(one, True), connection) for field in fields] for one in rows]
    return f"INSERT INTO {quoted(options.db_table)} ({columns}) VALUES ({places})", values


def keep(statement, values):
    """Store rows that were made ready, inside the transaction that is open."""
    with connection.cursor() as cursor:
        cursor.executemany(statement, values)
