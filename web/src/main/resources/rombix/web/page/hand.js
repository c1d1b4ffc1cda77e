// What a hand does: each finger holds one thing, and whatever ends that lets go of it.

const CLICK = 6;
const PIXELS_A_DETENT = 9;
const PIXELS_A_NOTCH = 18;
const FINER = .1;
const KEY_STEP = 1 / 40;
const KEY_PIXELS = 10;
const SEND_MILLIS = 30;

export class Hand {
  /** `tiles` gives the tile that a node belongs to; `may` whether this device presses. */
  constructor(page, tiles, connection, may) {
    this.tiles = tiles;
    this.connection = connection;
    this.may = may;
    this.fingers = new Map();
    this.keys = new Map();
    page.addEventListener("pointerdown", e => this.down(e));
    page.addEventListener("pointermove", e => this.move(e));
    for (const end of ["pointerup", "pointercancel"]) page.addEventListener(end, e => this.up(e));
    page.addEventListener("lostpointercapture", e => this.up(e));
    page.addEventListener("contextmenu", e => e.preventDefault());
    page.addEventListener("wheel", e => this.wheel(e), {passive: false});
    page.addEventListener("keydown", e => this.key(e, true));
    page.addEventListener("keyup", e => this.key(e, false));
    page.addEventListener("focusout", () => this.keys.forEach((_, id) => this.release(id)));
    page.addEventListener("click", e => this.assist(e));
    for (const away of ["blur", "pagehide"]) addEventListener(away, () => this.letGo());
    document.addEventListener("visibilitychange", () => document.visibilityState === "hidden" && this.letGo());
  }

  say(what, id, more = {}) {
    this.connection.say({do: what, b: id, ...more});
  }

  press(id, tile) {
    tile.down = true;
    tile.node.classList.add("down");
    this.say("press", id);
    this.connection.hold(id, true);
  }

  release(id) {
    const tile = this.keys.get(id) ?? this.tiles(id);
    this.keys.delete(id);
    if (tile) {
      tile.down = false;
      tile.node.classList.remove("down");
    }
    this.say("release", id);
    this.connection.hold(id, false);
  }

  down(e) {
    const tile = this.tiles(e.target.closest?.(".tile")?.dataset.id);
    if (!tile || e.button > 0 || !this.may()) return;
    const id = tile.place.id;
    const control = tile.place.control;
    if (control === "list") return; // It scrolls; a click chooses.
    if ([...this.fingers.values()].some(f => f.tile === tile)) return; // Another finger has it.
    const finger = {tile, id, control, x: e.clientX, y: e.clientY, travelled: 0, owed: 0, owedUp: 0, ways: ""};
    this.fingers.set(e.pointerId, finger);
    try {
      tile.node.setPointerCapture(e.pointerId);
    } catch {
      // The pointer is gone already; its end comes next.
    }
    switch (control) {
      case undefined:
        this.press(id, tile);
        break;
      case "fader":
      case "pad":
        this.say("press", id);
        this.connection.hold(id, true);
        break;
      case "pointer-field":
        if (tile.place.holds) this.press(id, tile);
        break;
      case "row":
        this.under(finger, e);
        break;
      case "key-pad":
        this.ways(finger, e);
        break;
    }
  }

  move(e) {
    const f = this.fingers.get(e.pointerId);
    if (!f) return;
    const dx = e.clientX - f.x;
    const dy = f.y - e.clientY;
    f.x = e.clientX;
    f.y = e.clientY;
    f.travelled += Math.abs(dx) + Math.abs(dy);
    const fine = e.shiftKey;
    const rate = fine ? FINER : 1;
    if (f.control === "row") return this.under(f, e);
    if (f.control === "key-pad") return this.ways(f, e);
    if (!f.control || f.travelled < CLICK) return;
    const box = f.tile.node.getBoundingClientRect();
    switch (f.control) {
      case "fader":
        this.level(f.tile, 0, (f.tile.along ? dx / (box.width * .84) : dy / (box.height * .5)) * rate);
        break;
      case "pad":
        this.level(f.tile, 0, dx / (box.width * .84) * rate);
        this.level(f.tile, 1, dy / (box.height * .56) * rate);
        break;
      case "dial":
        f.owed += (dx + dy) / PIXELS_A_DETENT;
        this.turn(f, Math.trunc(f.owed), fine);
        f.owed -= Math.trunc(f.owed);
        break;
      case "pointer-field":
        this.stroke(f.tile, dx * rate, dy * rate);
        break;
      case "wheel-strip": {
        const both = f.tile.place.both;
        f.owed += both || f.tile.along ? dx / PIXELS_A_NOTCH : 0;
        f.owedUp += both || !f.tile.along ? dy / PIXELS_A_NOTCH : 0;
        const across = Math.trunc(f.owed);
        const up = Math.trunc(f.owedUp);
        f.owed -= across;
        f.owedUp -= up;
        if (both) this.stroke(f.tile, across, up);
        else this.turn(f, across + up, fine);
        break;
      }
    }
  }

  up(e) {
    const f = this.fingers.get(e.pointerId);
    if (!f) return;
    this.fingers.delete(e.pointerId);
    const tap = e.type === "pointerup" && f.travelled < CLICK;
    switch (f.control) {
      case undefined:
        this.release(f.id);
        break;
      case "fader":
      case "pad":
        this.flush();
        f.tile.letGo();
        this.say("release", f.id);
        this.connection.hold(f.id, false);
        break;
      case "dial":
      case "pointer-field":
        if (f.control === "pointer-field" && f.tile.place.holds) this.release(f.id);
        else if (tap) {
          this.say("press", f.id);
          this.say("release", f.id);
        }
        break;
      case "row":
        if (e.type === "pointerup" && f.at !== undefined) this.say("choose", f.id, {at: f.at});
        f.tile.node.querySelectorAll(".under").forEach(c => c.classList.remove("under"));
        break;
      case "key-pad":
        this.hold(f, []);
        break;
    }
  }

  cell(f, e) {
    return document.elementsFromPoint(e.clientX, e.clientY).find(n => n.dataset?.at !== undefined && f.tile.node.contains(n));
  }

  under(f, e) {
    const cell = this.cell(f, e);
    f.at = cell ? Number(cell.dataset.at) : undefined;
    f.tile.node.querySelectorAll(".cells button").forEach(c => c.classList.toggle("under", c === cell));
  }

  /** Which ways a finger on a key pad holds: off the middle, by its direction. */
  ways(f, e) {
    const box = f.tile.node.querySelector(".cells").getBoundingClientRect();
    const x = (e.clientX - box.left) / box.width * 2 - 1;
    const y = 1 - (e.clientY - box.top) / box.height * 2;
    if (Math.hypot(x, y) < .3) return this.hold(f, []);
    if (f.tile.place.eight) return this.hold(f, [(Math.round(Math.atan2(x, y) / (Math.PI / 4)) + 8) % 8]);
    const ways = [];
    if (y > .33) ways.push(0);
    if (x > .33) ways.push(1);
    if (y < -.33) ways.push(2);
    if (x < -.33) ways.push(3);
    this.hold(f, ways);
  }

  hold(f, ways) {
    const key = ways.join();
    if (key === f.ways) return;
    f.ways = key;
    this.say("ways", f.id, {ways});
    this.connection.hold(f.id, ways.length > 0);
    f.tile.node.querySelectorAll(".cells button").forEach(c => c.classList.toggle("under", ways.includes(Number(c.dataset.at))));
  }

  level(tile, axis, by) {
    if (!by) return;
    const at = Math.min(1, Math.max(0, (tile.inHand[axis] ?? tile.places[axis] ?? 0) + by));
    tile.hand(axis, at);
    this.due ??= new Map();
    this.due.set(tile.place.id + " " + axis, {b: tile.place.id, axis, at});
    this.sending ??= setTimeout(() => this.flush(), SEND_MILLIS);
  }

  flush() {
    clearTimeout(this.sending);
    this.sending = undefined;
    this.due?.forEach(m => this.connection.say({do: "move", ...m}));
    this.due = undefined;
  }

  turn(f, by, fine) {
    if (by) this.say("turn", f.id, {by, fine});
  }

  stroke(tile, across, up) {
    if (across || up) this.say("stroke", tile.place.id, {across, up});
  }

  wheel(e) {
    const tile = this.tiles(e.target.closest?.(".tile")?.dataset.id);
    if (!tile || !tile.place.control || tile.place.control === "list" || !this.may()) return;
    e.preventDefault();
    this.step(tile, e.deltaX ? 0 : 1, e.deltaY > 0 || e.deltaX < 0 ? -1 : 1, e.shiftKey);
  }

  step(tile, axis, by, fine) {
    const id = tile.place.id;
    switch (tile.place.control) {
      case "fader":
      case "pad":
        this.level(tile, tile.place.control === "pad" ? axis : 0, by * KEY_STEP * (fine ? FINER : 1));
        this.flush();
        tile.letGo();
        break;
      case "pointer-field":
        this.stroke(tile, axis ? 0 : by * KEY_PIXELS, axis ? by * KEY_PIXELS : 0);
        break;
      case "wheel-strip":
        if (tile.place.both) this.stroke(tile, axis ? 0 : by, axis ? by : 0);
        else this.say("turn", id, {by, fine});
        break;
      case "key-pad":
        break;
      default:
        this.say("turn", id, {by, fine});
    }
  }

  key(e, down) {
    const node = e.target.closest?.(".tile");
    const tile = this.tiles(node?.dataset.id);
    if (!tile || e.ctrlKey || e.metaKey || e.altKey || !this.may()) return;
    const id = tile.place.id;
    const fires = e.key === " " || e.key === "Enter";
    if (fires && e.target === node && (!tile.place.control || ["dial", "pointer-field"].includes(tile.place.control))) {
      e.preventDefault();
      if (down && !e.repeat && !this.keys.has(id)) {
        this.keys.set(id, tile);
        this.press(id, tile);
      } else if (!down && this.keys.has(id)) {
        this.release(id);
      }
    } else if (fires && tile.place.control === "key-pad" && e.target.dataset.at) {
      e.preventDefault();
      if (!e.repeat) {
        this.say("ways", id, {ways: down ? [Number(e.target.dataset.at)] : []});
        this.connection.hold(id, down);
      }
    } else if (down && e.key.startsWith("Arrow") && tile.place.control && e.target === node) {
      e.preventDefault();
      this.step(tile, e.key === "ArrowUp" || e.key === "ArrowDown" ? 1 : 0, e.key === "ArrowUp" || e.key === "ArrowRight" ? 1 : -1, e.shiftKey);
    }
  }

  /** A click that no finger made: that of a screen reader, of a key on a cell, and of an item of a list. */
  assist(e) {
    const tile = this.tiles(e.target.closest?.(".tile")?.dataset.id);
    if (!tile || !this.may()) return;
    const at = e.target.closest("[data-at]")?.dataset.at;
    if (tile.place.control === "list" ? at : at && e.detail === 0 && tile.place.control === "row") {
      this.say("choose", tile.place.id, {at: Number(at)});
    } else if (e.detail === 0 && !tile.place.control && e.pointerType !== "touch" && !this.keys.has(tile.place.id)) {
      this.say("press", tile.place.id);
      this.say("release", tile.place.id);
    }
  }

  /** Whatever is held is let go: the page is left, turned, or has lost its deck. */
  letGo() {
    if (!this.fingers.size && !this.keys.size) return;
    for (const f of this.fingers.values()) {
      f.tile.down = false;
      f.tile.letGo();
      f.tile.node.classList.remove("down");
      this.connection.hold(f.id, false);
    }
    this.fingers.clear();
    this.keys.forEach((tile, id) => {
      tile.down = false;
      tile.node.classList.remove("down");
      this.connection.hold(id, false);
    });
    this.keys.clear();
    this.connection.say({do: "let-go"});
  }
}
