from yenzo.apps.desk.models.changes import Change
from yenzo.apps.desk.models.preflights import Finding, Preflight
from yenzo.apps.desk.models.questions import Question

__all__ = ["Change", "Finding", "Preflight", "Question"]
