"""The error root of the apps: what was wanted can't be done, for a reason that whoever wanted it is told.

AppError
├── AddressError        a mail address is none, or looks like somebody else's
├── DamagedFileError    what lies in the store is not what was kept
├── DeskError           pieces can't be released, asked about or changed as they stand
├── JobError            work can't be begun, finished or sent as it stands
├── LinkError           a link to sign in with is too old, or was used
├── ListError           a list of names can't be filled or ordered as wanted
├── OrderError          an order can't be placed, paid or cancelled as it stands
└── OutOfStockError     there are fewer left than are wanted

Documents that can't be changed as wanted are the core's own matter (`DocumentError` and, of changes that somebody came
between, `StaleEditError`), and so are files that are refused (`ArtworkError`).
"""


class AppError(Exception):
    """What was wanted can't be done; the message says why."""
