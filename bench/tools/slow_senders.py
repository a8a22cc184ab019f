"""Connections that hold a server up: headers that never end, bodies that trickle in, and silence.

Usage: slow_senders.py PORT [COUNT] [SECONDS]     opens COUNT (200) of each to 127.0.0.1:PORT for SECONDS (30)
"""

import contextlib
import selectors
import socket
import sys
import threading
import time
from collections.abc import Iterator

HEAD = b"POST /goods/cedar-nameboard/preview/ HTTP/1.1\r\nHost: 127.0.0.1\r\n"
BODY = HEAD + b"Content-Type: application/x-www-form-urlencoded\r\nContent-Length: 100000\r\n\r\nentry-name="
BEGINNINGS = {"slow headers": HEAD, "slow bodies": BODY, "silent": b""}
TRICKLES = {"slow headers": b"X-More: 1\r\n", "slow bodies": b"a", "silent": b""}
PAUSE_SECONDS = 0.5


@contextlib.contextmanager
def slow_senders(port: int, count: int) -> Iterator[dict[str, list[socket.socket]]]:
    """Hold `count` connections of each kind open, sending a little now and then; yield them by kind."""
    held: dict[str, list[socket.socket]] = {kind: [] for kind in BEGINNINGS}
    stop = threading.Event()
    for kind, beginning in BEGINNINGS.items():
        for _ in range(count):
            connection = socket.create_connection(("127.0.0.1", port), 10)
            connection.sendall(beginning)
            connection.setblocking(False)
            held[kind].append(connection)

    def trickle() -> None:
        while not stop.wait(PAUSE_SECONDS):
            for kind, connections in held.items():
                for connection in connections:
                    with contextlib.suppress(OSError):
                        connection.send(TRICKLES[kind])

    thread = threading.Thread(target=trickle, daemon=True)
    thread.start()
    try:
        yield held
    finally:
        stop.set()
        thread.join()
        for connections in held.values():
            for connection in connections:
                connection.close()


def still_open(connections: list[socket.socket]) -> int:
    """Return how many of the connections the server has not closed."""
    with selectors.DefaultSelector() as selector:
        for connection in connections:
            selector.register(connection, selectors.EVENT_READ)
        readable = {key.fileobj for key, _ in selector.select(0)}
    closed = 0
    for connection in connections:
        if connection not in readable:
            continue
        with contextlib.suppress(BlockingIOError):
            try:
                closed += connection.recv(1, socket.MSG_PEEK) == b""
            except ConnectionError:
                closed += 1
    return len(connections) - closed


if __name__ == "__main__":
    port, count, seconds = (int(value) for value in (*sys.argv[1:], *("0", "200", "30")[len(sys.argv) - 1 :]))
    with slow_senders(port, count) as opened:
        time.sleep(seconds)
        print({kind: still_open(connections) for kind, connections in opened.items()})
