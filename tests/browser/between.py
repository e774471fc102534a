"""Stands between a browser and the server, and can be as if the server weren't there."""

import http.client
import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from urllib.parse import urlsplit

NOT_PASSED = {"transfer-encoding", "connection", "content-length"}


class Between:
    """Passes everything on while `there`; while not, it hangs up on everybody."""

    def __init__(self, server: str) -> None:
        self.there, self.target = True, urlsplit(server).netloc
        between = self

        class Handler(BaseHTTPRequestHandler):
            """One request."""

            protocol_version = "HTTP/1.1"

            def handle_one_request(self) -> None:
                """Hang up, or read the request and pass it on."""
                self.raw_requestline = self.rfile.readline(65537)
                if not self.raw_requestline or not between.there or not self.parse_request():
                    self.close_connection = True
                    return
                between.passed(self)

            def log_message(self, *_: Any) -> None:
                """Quiet."""

        self.door = ThreadingHTTPServer(("localhost", 0), Handler)
        self.door.daemon_threads = True
        threading.Thread(target=self.door.serve_forever, daemon=True).start()

    @property
    def address(self) -> str:
        """Where it is found."""
        return f"http://localhost:{self.door.server_port}"

    def passed(self, request: BaseHTTPRequestHandler) -> None:
        """Ask the server, and give its answer."""
        body = request.rfile.read(int(request.headers.get("Content-Length") or 0))
        server = http.client.HTTPConnection(self.target, timeout=30)
        server.request(request.command, request.path, body, dict(request.headers))
        answer = server.getresponse()
        content = answer.read()
        request.send_response(answer.status)
        for name, value in answer.getheaders():
            if name.lower() not in NOT_PASSED:
                request.send_header(name, value)
        request.send_header("Content-Length", str(len(content)))
        request.end_headers()
        request.wfile.write(content)
        server.close()

    def close(self) -> None:
        """Shut the door for good."""
        self.door.shutdown()
        self.door.server_close()
