"""Caches of a process: what costs to make comes in by its key, the same thing goes out until there is no room for it.

Room is counted in bytes of what things are made from, so that many small ones don't cost more than a few large ones.
Threads share them: what one has made, the others find. What is made of a frozen thing alone hangs on it, and goes with
it.
"""

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

from cachetools import LRUCache

T = TypeVar("T")


def cached_on(thing: object, name: str, about: Hashable, make: Callable[[], T]) -> T:
    """Return what is made of a frozen thing and of what else it is about; the last one that was made hangs on it.

    It hangs by a name that is none of the thing's own.
    """
    hanging: tuple[Hashable, T] | None = thing.__dict__.get(name)
    if hanging is None or hanging[0] != about:
        hanging = thing.__dict__[name] = (about, make())
    return hanging[1]


class SizedCache(Generic[T]):
    """Things by key, those that were asked for last, up to so many bytes in all."""

    def __init__(self, most_bytes: int) -> None:
        self._things: LRUCache[Hashable, tuple[T, int]] = LRUCache(most_bytes, getsizeof=lambda pair: pair[1])
        self._lock = Lock()

    def get(self, key: Hashable, make: Callable[[], tuple[T, int]]) -> T:
        """Return the thing of a key; `make` returns it with its size in bytes, when it isn't there."""
        with self._lock:
            try:
                # To look whether it is there first would compare its key twice.
                return self._things[key][0]
            except KeyError:
                pass
        thing, size_bytes = make()
        with self._lock:
            # Whoever made it first is right: what hangs on it is warm already.
            first = self._things.get(key)
            if first is not None:
                return first[0]
            if size_bytes <= self._things.maxsize:
                self._things[key] = (thing, size_bytes)
        return thing

    def clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._things.clear()

    def __len__(self) -> int:
        return len(self._things)
