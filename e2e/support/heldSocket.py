"""Holds a listening socket as systemd does, and hands it to each server it starts (sd_listen_fds(3)).

Prints its port, then for each line it reads the process it has started.
"""
import os
import signal
import socket
import sys

FIRST = 3

# Whoever has ended is gone at once.
signal.signal(signal.SIGCHLD, signal.SIG_IGN)
held = socket.create_server(("127.0.0.1", 0))
print(held.getsockname()[1], flush=True)
for _ in sys.stdin:
    process = os.fork()
    if process == 0:
        signal.signal(signal.SIGCHLD, signal.SIG_DFL)
        os.dup2(held.fileno(), FIRST)
        os.set_inheritable(FIRST, True)
        os.environ.update(LISTEN_FDS="1", LISTEN_PID=str(os.getpid()))
        silent = os.open(os.devnull, os.O_RDWR)
        for stream in range(FIRST):
            os.dup2(silent, stream)
        os.execvp("node", ["node", ".output/server/index.mjs"])
    print(process, flush=True)
