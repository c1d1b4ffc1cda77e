"""Small gear of the kinds that the cookbook has cards for, written from the descriptions in docs/cookbook.md alone.

peers.py MODE PORT [CERTIFICATE]: a text matrix, a pan-tilt head, a relay board, a hub, a mixer and a switcher on PORT to
PORT + 5, and the wash light of a fixture on PORT + 8. With the certificate of an MQTT broker on PORT + 6 also the bulbs
there, and with a chat server on PORT + 7 somebody in its room. MODE says how what they say stands on the wire: whole,
split (byte by byte), glued (answers in one), slow (byte by byte with 20 ms between them, a message in half a second at
most).
"""
import base64
import hashlib
import json
import os
import socket
import ssl
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
                    time.sleep(min(0.02, 0.5 / len(part)))
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


def framed(words):
    """A text as one WebSocket frame of a server; in the split modes as two fragments."""
    data = words.encode()
    parts = [data[:len(data) // 2], data[len(data) // 2:]] if mode in ("split", "slow") else [data]
    made = b""
    for i, part in enumerate(parts):
        head = (0x80 if i == len(parts) - 1 else 0) | (1 if i == 0 else 0)
        size = bytes([len(part)]) if len(part) < 126 else b"\x7e" + struct.pack(">H", len(part))
        made += bytes([head]) + size + part
    return made


def exactly(s, count):
    came = b""
    while len(came) < count:
        more = s.recv(count - len(came))
        if not more:
            raise OSError("gone")
        came += more
    return came


def frames(s):
    """The texts that a client sends."""
    while True:
        kind, size = exactly(s, 2)
        size &= 127
        if size == 126:
            size = struct.unpack(">H", exactly(s, 2))[0]
        mask = exactly(s, 4)
        data = bytes(b ^ mask[i % 4] for i, b in enumerate(exactly(s, size)))
        if kind & 15 == 8:
            return
        if kind & 15 == 9:
            s.sendall(bytes([0x8A, len(data)]) + data)
        if kind & 15 == 1:
            yield json.loads(data)


def hashed(words):
    return base64.b64encode(hashlib.sha256(words.encode()).digest()).decode()


switched = {"shown": "Wide", "sessions": 0}


def switcher(s):
    asked = b""
    while b"\r\n\r\n" not in asked:
        asked += s.recv(1000)
    key = [line.split(b": ")[1] for line in asked.split(b"\r\n") if line.lower().startswith(b"sec-websocket-key")][0]
    accept = base64.b64encode(hashlib.sha1(key + b"258EAFA5-E914-47DA-95CA-C5AB0DC85B11").digest()).decode()
    s.sendall(f"HTTP/1.1 101 Switching\r\nUpgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Accept: {accept}\r\n\r\n"
              .encode())
    salt, challenge = os.urandom(4).hex(), os.urandom(4).hex()
    say(s, framed(json.dumps({"hello": "switcher", "salt": salt, "challenge": challenge})))
    known = False
    left = 3
    for asked in frames(s):
        if "login" in asked:
            known = asked["login"] == hashed(hashed("owl-and-moss" + salt) + challenge)
            say(s, framed(json.dumps({"welcome": known, "why": "" if known else "wrong"})))
            switched["sessions"] += known
            print("session", switched["sessions"], flush=True)
            say(s, framed('{"event": "scenes-changed"}'))
            continue
        left -= asked.get("do") == "show"
        if not known or left == 0:
            known = False
            say(s, framed('{"event": "session-over"}'))
            continue
        answer = {"id": asked["id"], "ok": True}
        told = []
        if asked.get("ask") == "scenes":
            answer["reply"] = {"shown": switched["shown"], "scenes": [{"name": "Wide"}, {"name": "Close"}]}
        elif asked.get("do") == "show" and asked["scene"] in ("Wide", "Close"):
            switched["shown"] = asked["scene"]
            told = [framed(json.dumps({"event": "scene-shown", "scene": asked["scene"]}))]
        elif asked.get("do") == "show":
            answer = {"id": asked["id"], "ok": False, "code": 3}
        say(s, *told, framed(json.dumps(answer)))


def short(words):
    data = words.encode()
    return struct.pack(">H", len(data)) + data


def mqtt(kind, body):
    size, made = len(body), b""
    while True:
        made += bytes([size % 128 | (128 if size > 127 else 0)])
        size //= 128
        if not size:
            return bytes([kind]) + made + body


def bulbs(certificate):
    """Two bulbs at a broker, over TLS; version 3.1.1."""
    trust = ssl.create_default_context(cafile=certificate)
    s = trust.wrap_socket(socket.create_connection(("127.0.0.1", port + 6)), server_hostname="localhost")
    s.sendall(mqtt(0x10, short("MQTT") + bytes([4, 2]) + struct.pack(">H", 0) + short(f"bulbs-{os.getpid()}")))
    state = {name: {"color": {"h": 10, "s": 20}, "brightness": 100} for name in ("porch", "attic")}

    def tell(name):
        s.sendall(mqtt(0x31, short(f"bulbs/{name}/state") + json.dumps(state[name]).encode()))
    for name in state:
        s.sendall(mqtt(0x31, short(f"bulbs/{name}/about") + json.dumps({"name": name.title()}).encode()))
        tell(name)
    s.sendall(mqtt(0x82, b"\0\1" + short("bulbs/+/set") + b"\0" + short("bulbs/+/get") + b"\0"))
    while True:
        kind = exactly(s, 1)[0]
        size = shift = 0
        while True:
            b = exactly(s, 1)[0]
            size |= (b & 127) << shift
            shift += 7
            if b < 128:
                break
        body = exactly(s, size)
        if kind & 0xF0 == 0x30:
            end = 2 + struct.unpack(">H", body[:2])[0]
            _, name, what = body[2:end].decode().split("/")
            if what == "set":
                state[name].update(json.loads(body[end:]))
            tell(name)


def visitor():
    """Somebody in the room, who gives others the right to moderate where it is theirs, and answers who asks."""
    nick = f"owl{os.getpid() % 10000}"
    s = socket.create_connection(("127.0.0.1", port + 7))
    s.sendall(f"NICK {nick}\r\nUSER owl 0 * owl\r\nJOIN #cookbook\r\n".encode())
    for line in s.makefile("r", encoding="utf-8"):
        words = line.split()
        who = line[1:].split("!")[0]
        if words[0] == "PING":
            s.sendall(f"PONG {words[1]}\r\n".encode())
        elif words[1] == "JOIN" and who != nick:
            s.sendall(f"MODE #cookbook +o {who}\r\n".encode())
        elif words[1] == "PRIVMSG" and "ask me" in line:
            s.sendall(b"PRIVMSG #cookbook :!clip please\r\n")


def wash():
    """A wash light at slot 11 of universe 1, over sACN (ANSI E1.31)."""
    s = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
    s.bind(("127.0.0.1", port + 8))
    last = b""
    while True:
        packet = s.recv(1500)
        if packet[4:16] == b"ASC-E1.17\0\0\0" and packet[40:44] == b"\0\0\0\2" and packet[113:115] == b"\0\1":
            levels = packet[126:][10:18]
            if levels != last:
                last = levels
                print("wash", *levels, flush=True)


def alone(guest, *given):
    def gone():
        try:
            guest(*given)
        except OSError:
            pass
    threading.Thread(target=gone, daemon=True).start()


serve(0, matrix)
serve(1, head)
serve(2, relays)
serve(5, switcher)
threading.Thread(target=ThreadingHTTPServer(("127.0.0.1", port + 3), Hub).serve_forever, daemon=True).start()
alone(mixer)
alone(wash)
if len(sys.argv) > 3:
    alone(bulbs, sys.argv[3])
    alone(visitor)
print("ready", flush=True)
threading.Event().wait()
