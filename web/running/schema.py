"""Whether the database and the code fit: what is still to be migrated, and what this code does not know."""

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.loader import MigrationLoader


def pending():
    """The migrations that are not applied yet, by name."""
    executor = MigrationExecutor(connection)
    return [f"{migration.app_label}.{migration.name}" for migration, _ in executor.migration_plan(executor.loader.graph.leaf_nodes())]


def unknown():
    """The migrations that are applied but not known to this code: it is older than its data."""
    return unknown_of(MigrationExecutor(connection).loader.applied_migrations)


def unknown_of(applied):
    """Those of some migrations (app and name) of ours that this code does not know."""
    loader = MigrationLoader(None)
    ours = {app for app, _ in loader.disk_migrations}
    return [f"{app}.{name}" for app, name in sorted(applied) if app in ours and (app, name) not in loader.disk_migrations]


def difference():
    """What keeps this code from running on this database, in one line; empty where they fit."""
    if unknown():
        return f"The data is newer than this version: it does not know {unknown()[0]}. Start the newer version again, or restore a backup."
    if pending():
        return (
            f"The data is older than this version ({len(pending())} to migrate, first {pending()[0]}). Run ./ok serve, which migrates it."
        )
    return ""
