from yenzo.apps.accounts.models.person import Person, Role

__all__ = ["Person", "Role"]
