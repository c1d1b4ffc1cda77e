// The way to the deck: one socket, made again whenever it is lost.

const QUIET_MILLIS = 12000; // The deck greets every 5 s.
const HOLD_MILLIS = 1500; // While something is held it answers each half second.
const BEAT_MILLIS = 500;
const WAITS = [200, 400, 800, 1600, 3000];

export class Connection {
  /** `take` gets each message; `lost` is told that the connection is gone or back; `refused` that this device has no access. */
  constructor(take, lost, refused) {
    this.take = take;
    this.lost = lost;
    this.refused = refused;
    this.holding = new Set();
    this.tries = 0;
    this.offset = 0;
    addEventListener("online", () => this.again(0));
    addEventListener("offline", () => this.drop());
    document.addEventListener("visibilitychange", () => document.visibilityState === "visible" && this.again(0));
  }

  open() {
    clearTimeout(this.timer);
    const socket = new WebSocket(location.href.replace(/^http/, "ws").replace(/#.*/, "").replace(/\/[^/]*$/, "/live"));
    this.socket = socket;
    this.heard = performance.now();
    socket.onmessage = e => {
      if (socket !== this.socket) return;
      this.heard = performance.now();
      const message = JSON.parse(e.data);
      this.offset = message.now - this.heard;
      this.dayOffset = message.day - this.heard;
      if (!this.there) {
        this.there = true;
        this.tries = 0;
        this.lost(false);
      }
      this.take(message);
    };
    socket.onclose = e => socket === this.socket && this.gone(e.code);
    this.watch ??= setInterval(() => this.look(), BEAT_MILLIS);
  }

  /** The deck's clock, in milliseconds. */
  now() {
    return performance.now() + this.offset;
  }

  /** The deck's time of day, in milliseconds since midnight. */
  day() {
    return performance.now() + this.dayOffset;
  }

  say(message) {
    if (this.there && this.socket.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(message));
  }

  /** Something is held under this name from now on, or no longer. */
  hold(name, on) {
    if (on) {
      if (!this.holding.size) this.heard = performance.now();
      this.holding.add(name);
      clearInterval(this.beat);
      this.beat = setInterval(() => this.holding.size ? this.say({do: "holding"}) : clearInterval(this.beat), BEAT_MILLIS);
      this.say({do: "holding"});
    } else {
      this.holding.delete(name);
    }
  }

  look() {
    if (this.there && performance.now() - this.heard > (this.holding.size ? HOLD_MILLIS : QUIET_MILLIS)) this.drop();
  }

  /** The network is gone, whatever the socket says. */
  drop() {
    const socket = this.socket;
    if (!socket) return;
    this.socket = null;
    socket.close();
    this.gone(0);
  }

  gone(code) {
    this.there = false;
    this.holding.clear();
    this.socket = null;
    this.lost(true);
    if (code === 1008) {
      this.refused(true);
    } else {
      this.again(WAITS[Math.min(this.tries++, WAITS.length - 1)]);
    }
  }

  again(wait) {
    if (this.socket) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(async () => {
      try {
        const answer = await fetch("/live", {cache: "no-store"});
        if (answer.status === 401) this.refused(false);
        else this.open();
      } catch {
        this.again(WAITS[Math.min(this.tries++, WAITS.length - 1)]);
      }
    }, wait);
  }
}
