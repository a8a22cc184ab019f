"""What all tests share: no law may fail because the machine is busy."""

from hypothesis import HealthCheck, settings

settings.register_profile("steady", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("steady")
