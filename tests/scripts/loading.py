"""Loads a script of scripts/ as a module."""

import importlib.util

from demo.installation import ROOT


def load_script(name):
    """Return the script as a module, without running it."""
    spec = importlib.util.spec_from_file_location(f"script_{name}", ROOT / "scripts" / f"{name}.py")
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module
