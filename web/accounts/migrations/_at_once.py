"""All models of a new database made at once: step by step each one is worked out anew with everything that refers to it."""

from django.db.migrations.operations import CreateModel
from django.db.migrations.operations.base import Operation


class AtOnce(Operation):
    """Operations that only make models and add to what they make, run together: their state first, then each table as it is in the end."""

    reversible = False

    def __init__(self, operations):
        self.operations = operations

    def deconstruct(self):
        return type(self).__name__, [self.operations], {}

    def describe(self):
        return "Make all models at once"

    def state_forwards(self, app_label, state):
        # Models that were worked out already would be worked out again for every one that is added.
        state.__dict__.pop("apps", None)
        for operation in self.operations:
            operation.state_forwards(app_label, state)

    def database_forwards(self, app_label, schema_editor, from_state, to_state):
        for operation in self.operations:
            if isinstance(operation, CreateModel):
                model = to_state.apps.get_model(app_label, operation.name)
                if self.allow_migrate_model(schema_editor.connection.alias, model):
                    schema_editor.create_model(model)
