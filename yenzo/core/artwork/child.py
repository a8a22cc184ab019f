"""The process that opens outside files and may die without harm: a request on standard input, the result as JSON.

Run by `inspect_artwork` only. Bounds are set before the file is touched; converters that it starts inherit them.
"""

import base64
import json
import resource
import sys
from pathlib import Path

from yenzo.core.artwork.decode import decode
from yenzo.core.artwork.external_tools import MOST_WRITTEN_BYTES
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import override_language


def main() -> None:
    """Read path, name, limits, wanted and folder; write facts and files, or the code and words of a refusal."""
    request = json.load(sys.stdin)
    limits = ArtworkLimits.model_validate(request["limits"])
    wanted = Preparation.model_validate(request["wanted"])
    _bound(limits)
    try:
        with override_language(request["language"]):
            made = decode(Path(request["path"]), request["name"], limits, wanted, Path(request["folder"]))
    except ArtworkError as error:
        answer: dict[str, object] = {"code": error.code, "message": error.message}
    else:
        answer = {
            "facts": made.facts.model_dump(),
            "prepared": base64.b64encode(made.prepared).decode(),
            "shown": base64.b64encode(made.shown).decode(),
        }
    json.dump(answer, sys.stdout)


def _bound(limits: ArtworkLimits) -> None:
    memory, seconds = limits.most_memory_bytes, limits.most_seconds
    resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds + 1))
    # Nothing is written here; a converter that must write a file raises this for itself.
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, MOST_WRITTEN_BYTES))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


if __name__ == "__main__":
    main()
