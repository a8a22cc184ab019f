"""What all tests share: no law may fail because the machine is busy."""

import pytest
from hypothesis import HealthCheck, settings

settings.register_profile("steady", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("steady")


def pytest_collection_modifyitems(items):
    """Keep the stories in one process: they share one installation."""
    for item in items:
        if item.path.parent.name == "story":
            item.add_marker(pytest.mark.xdist_group("story"))
