"""Whoever sends little at a time, or more than is read, takes nothing from others."""

import socket

from tests.server import PATIENCE, Client, Server


def test_requests_that_trickle_hold_nobody_up(tmp_path):
    server = Server(tmp_path)
    server.start()
    client = Client(server)
    client.keep("1 + 1")
    cookies = "; ".join(f"{name}={value}" for name, value in client.cookies.items())
    head = (
        f"POST {client.sheet}/preview HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookies}\r\n"
        f"X-CSRFToken: {client.csrf}\r\nContent-Type: application/x-www-form-urlencoded\r\n"
        "Content-Length: 1000\r\n\r\ntext=1"
    )
    slow = []
    for begun in [head, head[:20]] * 40:  # more than there are threads
        slow.append(socket.create_connection(("127.0.0.1", server.port)))
        slow[-1].sendall(begun.encode())
    assert 'data-text="4"' in client.keep("2 + 2")
    for one in slow:
        one.close()
    server.kill()


def test_what_is_too_large_is_refused_before_it_is_read(tmp_path):
    server = Server(tmp_path)
    server.start()
    client = Client(server)
    with socket.create_connection(("127.0.0.1", server.port)) as line:
        line.sendall(
            f"POST {client.sheet}/preview HTTP/1.1\r\nHost: 127.0.0.1\r\n"
            "Content-Type: application/x-www-form-urlencoded\r\n"
            "Content-Length: 900000000\r\n\r\ntext=1".encode()
        )
        line.settimeout(PATIENCE)
        assert b" 413 " in line.recv(4096)
    server.kill()
