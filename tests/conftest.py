import pytest
from hypothesis import settings as hypothesis

# Speed is no matter of these tests: a busy machine must not fail them.
hypothesis.register_profile("calm", deadline=None)
hypothesis.load_profile("calm")


@pytest.fixture(autouse=True)
def quick_passwords(settings):
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
