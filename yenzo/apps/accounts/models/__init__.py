from yenzo.apps.accounts.models.counters import RateCounter
from yenzo.apps.accounts.models.person import Person, Role

__all__ = ["Person", "RateCounter", "Role"]
