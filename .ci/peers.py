"""Small gear of the kinds that the cookbook has cards for, written from the descriptions in docs/cookbook.md alone.

peers.py MODE PORT: five of them on PORT to PORT + 4: a text matrix, a pan-tilt head, a relay board, a hub and a mixer.
MODE says how what they say stands on the wire: whole, split (byte by byte), glued (answers in one), slow (byte by byte
with 20 ms between them).
"""
import json
import socket
import struct
import sys
import threading
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

mode, port = sys.argv[1], int(sys.argv[2])


def say(s, *parts):
    parts = [b"".join(parts)] if mode == "glued" else parts
    for part in parts:
        if mode in ("split", "slow"):
            for i in range(len(part)):
                s.sendall(part[i:i + 1])
                if mode == "slow":
                    time.sleep(0.02)
        else:
            s.sendall(part)


def serve(number, guest):
    listening = socket.create_server(("127.0.0.1", port + number))

    def one(s):
        s.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
        try:
            guest(s)
        except OSError:
            pass
        s.close()

    def all():
        while True:
            s, _ = listening.accept()
            threading.Thread(target=one, args=(s,), daemon=True).start()
    threading.Thread(target=all, daemon=True).start()


routes = {"1": "3", "2": "4"}


def matrix(s):
    lines = s.makefile("r", newline="\n", encoding="utf-8")
    say(s, b"MATRIX 8x2\r\n", b"login: ")
    user = lines.readline().strip()
    say(s, b"password: ")
    if user != "booth" or lines.readline().strip() != "owl-and-moss":
        say(s, b"denied: nobody of that name\r\n")
        return
    say(s, b"> ")
    for line in lines:
        words = line.split()
        if words[:1] == ["ROUTE"] and int(words[1]) > 6:
            say(s, b"ERR 1\r\n", b"> ")
            continue
        if words[:1] == ["ROUTE"]:
            routes[words[2]] = words[1]
        out = words[-1]
        say(s, f"OUT {out} IN {routes[out]}\r\n".encode(), b"> ")


position = bytearray([0] * 8)


def head(s):
    held = b""
    while True:
        came = s.recv(1000)
        if not came:
            return
        held += came
        while b"\xff" in held:
            asked, held = held.split(b"\xff", 1)
            if asked[:2] == b"\xa1\x02":
                position[:] = asked[2:10]
                say(s, b"\xb1\x41\xff", b"\xb1\x51\xff")
            elif asked[:2] == b"\xa1\x09":
                say(s, b"\xb1\x50" + bytes(position) + b"\xff")
            else:
                say(s, b"\xb1\x61\xff")


def crc(data):
    made = 0xFFFF
    for b in data:
        made ^= b << 8
        for _ in range(8):
            made = (made << 1 ^ 0x1021) & 0xFFFF if made & 0x8000 else made << 1 & 0xFFFF
    return data + made.to_bytes(2, "big")


states = {0: 0, 1: 0}


def relays(s):
    held = b""
    while True:
        came = s.recv(1000)
        if not came:
            return
        held += came
        while len(held) > 1 and len(held) >= held[1] + 4:
            asked, held = held[:held[1] + 4], held[held[1] + 4:]
            if crc(asked[:-2]) != asked:
                say(s, crc(b"\x55\x02\xe1\x01"))
            elif asked[2] == 1:
                states[asked[3]] = asked[4]
                say(s, crc(bytes([0x55, 3, 0x81, asked[3], asked[4]])), crc(bytes([0x55, 3, 0x83, asked[3], asked[4]])))
            else:
                say(s, crc(bytes([0x55, 3, 0x82, asked[3], states[asked[3]]])))


lamps = {"desk": False}
token = {"name": 0, "left": 0}
events = []


class Hub(BaseHTTPRequestHandler):
    protocol_version = "HTTP/1.1"

    def log_message(self, *_):
        pass

    def answer(self, status, text):
        self.send_response(status)
        self.send_header("Content-Length", str(len(text)))
        self.end_headers()
        say(self.connection, text.encode())

    def body(self):
        return self.rfile.read(int(self.headers.get("Content-Length", 0))).decode()

    def known(self):
        token["left"] -= 1
        return token["left"] >= 0 and self.headers.get("Authorization") == f"Bearer t{token['name']}"

    def do_POST(self):
        asked = json.loads(self.body())
        if asked != {"user": "booth", "password": "owl-and-moss"}:
            return self.answer(403, "nobody of that name")
        token["name"] += 1
        token["left"] = 2
        print("token", token["name"], flush=True)
        self.answer(200, json.dumps({"token": f"t{token['name']}"}))

    def do_GET(self):
        if self.path == "/events":
            self.send_response(200)
            self.send_header("Content-Type", "text/event-stream")
            self.end_headers()
            seen = len(events)
            while True:
                if len(events) > seen:
                    say(self.connection, f"data: {json.dumps(events[seen])}\n\n".encode())
                    seen += 1
                time.sleep(0.05)
        if not self.known():
            return self.answer(401, "expired")
        self.answer(200, json.dumps([{"id": i, "name": i.title(), "on": on} for i, on in lamps.items()]))

    def do_PUT(self):
        asked = json.loads(self.body())
        if not self.known():
            return self.answer(401, "expired")
        lamp = self.path.split("/")[-1]
        lamps[lamp] = asked["on"]
        events.append({"lamp": lamp, "on": asked["on"]})
        self.answer(200, "{}")


def text(s):
    data = s.encode() + b"\0"
    return data + b"\0" * (-len(data) % 4)


faders = {f"/ch/{i}/{what}": 0.25 for i in (1, 2) for what in ("fader", "on")}


def mixer():
    s = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
    s.bind(("127.0.0.1", port + 4))
    while True:
        data, who = s.recvfrom(1500)
        address = data[:data.index(0)].decode()
        rest = data[len(text(address)):]
        types = rest[:rest.index(0)].decode() if rest else ","
        args = rest[len(text(types)):]
        if address == "/subscribe":
            continue
        if types == ",f":
            faders[address] = struct.unpack(">f", args[:4])[0]
        s.sendto(text(address) + text(",f") + struct.pack(">f", faders[address]), who)


serve(0, matrix)
serve(1, head)
serve(2, relays)
threading.Thread(target=ThreadingHTTPServer(("127.0.0.1", port + 3), Hub).serve_forever, daemon=True).start()
threading.Thread(target=mixer, daemon=True).start()
print("ready", flush=True)
threading.Event().wait()
