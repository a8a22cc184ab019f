"""The clusters: made once, found again, never mistaken for somebody else's process."""

import os
import socket

import psycopg
import pytest

from tests.scripts.loading import load_script

cluster_script = load_script("cluster")


@pytest.fixture
def cluster():
    made = cluster_script.Cluster("spare")
    yield made
    made.destroy()


def answers(url):
    with psycopg.connect(url) as connection:
        return connection.execute("SELECT 1").fetchone() == (1,)


def test_cluster_is_made_started_twice_stopped_and_found_again(cluster):
    first = cluster.start()
    assert answers(first)
    assert cluster.start() == first
    assert oct(cluster.password_file.stat().st_mode)[-3:] == "600"
    cluster.stop()
    with pytest.raises(psycopg.OperationalError):
        answers(first)
    assert answers(cluster.start())


def test_stale_pid_file_that_names_another_process_is_not_believed(cluster):
    cluster.start()
    pid_file = cluster.data / "postmaster.pid"
    lines = pid_file.read_text().splitlines()
    cluster.stop()
    lines[0] = str(os.getpid())
    pid_file.write_text("\n".join(lines))
    assert cluster._running_port() is None
    assert answers(cluster.start())


def test_cluster_listens_on_loopback_only_and_wants_its_password(cluster):
    url = cluster.start()
    with psycopg.connect(url) as connection:
        assert connection.execute("SHOW listen_addresses").fetchone() == ("127.0.0.1",)
        assert connection.execute("SHOW unix_socket_directories").fetchone() == ("",)
    with pytest.raises(psycopg.OperationalError, match="password"):
        answers(url.replace(cluster.password_file.read_text(), "guess"))


def test_command_line_without_sense_says_how_it_is_used(capsys):
    assert cluster_script.main(["dance"]) == 2
    assert "Usage" in capsys.readouterr().err


def test_port_that_somebodys_connection_has_taken_is_left_alone():
    with socket.create_server(("127.0.0.1", 0)) as server, socket.socket() as client:
        client.bind(("127.0.0.1", 0))
        client.connect(server.getsockname())
        taken = client.getsockname()[1]
        assert cluster_script._free_port(taken) != taken
