"""What all tests share: no law may fail because the machine is busy; and which of them stay together."""

import pytest
from hypothesis import settings
from xdist.scheduler.loadscope import LoadScopeScheduling

from tests.sweeping import IS_SWEEP, EachOnce, Sweep, examples


def pytest_configure(config):
    config.addinivalue_line("markers", "sweep: proved by `make sweep` only")
    # A single test that is named is run, whatever it is.
    if IS_SWEEP:
        config.pluginmanager.register(Sweep())
    elif not any("::" in one for one in config.invocation_params.args):
        config.pluginmanager.register(EachOnce())
    settings.register_profile("steady", examples())
    settings.load_profile("steady")


# Stories that look and change no more than what is their own; the others order, pay, stop workers and close doors.
CALM = ("test_pages", "test_sellers", "test_held_answers")
# Tests that look at one thing that takes a while to make.
TOGETHER = ("test_migrating",)


class ByWhatTheyShare(LoadScopeScheduling):
    """Spreads tests over processes, but keeps those together that share an installation or a cluster."""

    def _split_scope(self, nodeid):
        _, folder, *rest = nodeid.split("/")
        if folder == "story":
            return "calm stories" if rest[0].startswith(CALM) else "stories"
        if rest and rest[0].startswith(TOGETHER):
            return rest[0].partition("::")[0]
        return folder if folder == "scripts" else nodeid


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config, log):
    return ByWhatTheyShare(config, log)
