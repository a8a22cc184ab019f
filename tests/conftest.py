"""What all tests share: no law may fail because the machine is busy."""

import pytest
from hypothesis import HealthCheck, settings
from xdist.scheduler.loadscope import LoadScopeScheduling

settings.register_profile("steady", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("steady")


class ByWhatTheyShare(LoadScopeScheduling):
    """Spreads tests over processes, but keeps those together that share an installation or a cluster."""

    def _split_scope(self, nodeid):
        folder = nodeid.split("/")[1]
        return folder if folder in {"story", "scripts"} else nodeid


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config, log):
    return ByWhatTheyShare(config, log)
