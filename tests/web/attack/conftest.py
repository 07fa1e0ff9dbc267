import pytest


@pytest.fixture(autouse=True)
def told_again_as_in_use(papers_here, settings):
    """What is told is kept for a moment, as in use: nothing here asks whether it is stale."""
    from web.logbook.calls import told_again

    settings.TOLD_KEPT_S = 15.0
    told_again.forget()
