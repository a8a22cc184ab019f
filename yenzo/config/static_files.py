"""Static files under names that change with their content, kept by browsers for good."""

from typing import ClassVar

from whitenoise.storage import CompressedManifestStaticFilesStorage

_IMPORT = r"""(?P<matched>import(?s:(?P<import>[\s\{].*?|\*\s*as\s*\w+))\s*from\s*['"](?P<url>[./].*?)["']\s*;)"""


class NamedByContent(CompressedManifestStaticFilesStorage):  # type: ignore[misc]  # whitenoise says no types
    """As whitenoise has it, and scripts of ours name the ones that they import by their content, too.

    Under its plain name a script would be loaded a second time, do everything twice, and be kept when it has changed.
    """

    # For our folder alone: scripts of packages name files that aren't there.
    patterns: ClassVar = (
        *CompressedManifestStaticFilesStorage.patterns,
        ("js/*.js", ((_IMPORT, 'import%(import)s from "%(url)s";'),)),
    )
