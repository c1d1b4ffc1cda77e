// How a button looks: made once for its place on the page, and changed as the deck says.

const MARKS = {
  ring: "M7 1.5a5.5 5.5 0 1 0 .01 0z", cross: "M2 2 12 12M12 2 2 12", tick: "M1.5 7.5 5.5 11.5 12.5 2.5", bar: "M1 7h12",
  up: "M7 13V2M2.5 6.5 7 2 11.5 6.5", down: "M7 1v11M2.5 7.5 7 12 11.5 7.5"
};
const SVG = "http://www.w3.org/2000/svg";

export function element(tag, kind, text) {
  const made = document.createElement(tag);
  if (kind) made.className = kind;
  if (text !== undefined) made.textContent = text;
  return made;
}

/** The roles of what is more than a push button. */
const ROLES = {dial: "slider", fader: "slider", pad: "slider", row: "radiogroup", "key-pad": "group", list: "group", "wheel-strip": "slider"};

export class Tile {
  constructor(place, connection) {
    this.place = place;
    this.connection = connection;
    const role = ROLES[place.control];
    this.node = element(role ? "div" : "button", "tile");
    if (role) {
      this.node.setAttribute("role", role);
      if (role === "slider") this.node.tabIndex = 0;
    } else {
      this.node.type = "button";
      this.named = element("span", "unseen");
    }
    this.node.id = "button-" + place.id;
    this.node.dataset.id = place.id;
    const {column = 0, row = 0, width = 1, height = 1} = place;
    this.node.style.setProperty("--wide", width);
    this.node.style.setProperty("--tall", height);
    this.node.style.gridArea = `${row + 1} / ${column + 1} / span ${height} / span ${width}`;
    this.along = width > height;
    if (!this.along) this.node.classList.add("tall");
    this.places = [];
    this.inHand = [];
  }

  show(face) {
    const before = this.face;
    this.face = face;
    const n = this.node;
    n.className = ["tile", face.fill || "moss", this.along ? "" : "tall", face.held ? "held" : "", face.tally ? face.tone : "",
      face.picture && face.fit !== "icon" ? "pictured" : "", this.down ? "down" : ""].filter(Boolean).join(" ");
    if (this.named) this.named.textContent = face.spoken;
    else n.setAttribute("aria-label", face.spoken);
    const style = n.style;
    set(style, "--fill", face.tint);
    set(style, "--own-ink", face.ink);
    set(style, "--accent-own", face.accent);
    if (!this.place.control) {
      if (face.pips?.length === 2) n.setAttribute("aria-pressed", String((face.state || 0) === 1));
      else n.removeAttribute("aria-pressed");
    }
    if (before && same(before, face)) {
      this.levels(face);
      this.going();
      return;
    }
    const parts = [];
    if (face.picture) {
      const art = element("img", "art " + face.fit);
      art.src = "/picture/" + encodeURIComponent(face.picture);
      art.alt = "";
      art.draggable = false;
      if (face.padding) art.style.padding = face.padding / 2 + "%";
      parts.push(art);
    }
    const slides = this.place.control && !["pointer-field", "list"].includes(this.place.control);
    const words = hidden(element("span", "words"));
    if (face.icon && this.place.control !== "list") (slides ? words : parts)[slides ? "append" : "push"](hidden(element("span", "icon", face.icon)));
    this.control(face, parts);
    if (face.levels?.length && this.place.control !== "pad") words.append(element("span", "level"));
    words.append(element("span", "label", face.label));
    if (face.second) words.append(element("span", "second", face.second));
    if (this.place.control === "list") parts.push(hidden(element("span", "under-items", face.label)));
    else parts.push(words);
    if (face.tally) parts.push(hidden(element("span", "tally", face.tally)));
    if (face.mark) parts.push(mark(face.mark));
    if (face.pips?.length) {
      const pips = hidden(element("span", "pips"));
      face.pips.forEach((_, i) => pips.append(element("i", i === (face.state || 0) ? "now" : i === face.coming ? "coming" : "")));
      parts.push(pips);
    }
    if (face.fault) parts.push(hidden(element("span", "fault", face.fault)));
    if (this.named) parts.unshift(this.named);
    n.replaceChildren(...parts);
    const label = words.firstElementChild && words.querySelector(".label");
    if (label && words.offsetHeight > n.clientHeight * .52) label.classList.add("long"); // Smaller, rather than over the icon.
    this.levels(face);
    this.going();
  }

  control(face, parts) {
    switch (this.place.control) {
      case "fader": {
        const track = hidden(element("span", "track " + (this.along ? "along" : "up")));
        track.append(element("b"), element("i", "knob"));
        parts.push(track);
        break;
      }
      case "dial":
        if (face.levels?.length) parts.push(hidden(element("span", "ring")));
        break;
      case "pad": {
        const field = hidden(element("span", "field"));
        field.append(element("i", "dot"));
        parts.push(field);
        break;
      }
      case "pointer-field":
        parts.push(hidden(element("span", "field")));
        break;
      case "wheel-strip":
        parts.push(hidden(element("span", "notches" + (this.along ? " along" : ""))));
        break;
      case "row":
      case "key-pad":
        parts.push(this.cells(face));
        break;
      case "list":
        parts.push(this.items(face.items));
        break;
    }
  }

  cells(face) {
    const row = this.place.control === "row";
    const box = element("span", "cells" + (row ? "" : " pad-keys"));
    face.cells.forEach((name, i) => {
      const cell = element("button", i === face.coming ? "coming" : "", name);
      cell.type = "button";
      cell.dataset.at = i;
      if (row) {
        cell.setAttribute("role", "radio");
        cell.setAttribute("aria-checked", String(i === (face.state || 0)));
      } else {
        const [across, down] = this.place.eight ? EIGHT[i] : FOUR[i];
        cell.style.gridArea = `${down} / ${across}`;
      }
      box.append(cell);
    });
    return box;
  }

  items(list) {
    const box = element("span", "items");
    (list?.items || []).forEach((item, i) => {
      const row = element("button");
      row.type = "button";
      row.dataset.at = i + 1;
      row.append(element("span", "nr", String(i + 1)), element("span", "name", item.name), element("span", "when", item.time));
      if (i + 1 === list.on) {
        row.setAttribute("aria-current", "true");
        row.prepend(element("b", "", "ON"));
        if (list.ends >= 0) row.lastChild.dataset.ends = list.ends;
      }
      box.append(row);
    });
    return box;
  }

  levels(face) {
    const all = face.levels || [];
    const words = all.map(l => l.words).join(", ");
    all.forEach((l, i) => {
      if (this.inHand[i] === undefined) this.places[i] = l.at < 0 ? (this.place.control === "pad" ? .5 : 0) : l.at;
    });
    const at = i => this.inHand[i] ?? this.places[i] ?? 0;
    this.node.style.setProperty("--at", at(0));
    this.node.style.setProperty("--x", at(0));
    this.node.style.setProperty("--y", at(1));
    const level = this.node.querySelector(".level");
    if (level) level.textContent = words;
    if (this.node.getAttribute("role") === "slider") {
      this.node.setAttribute("aria-valuenow", String(Math.round(at(0) * 100)));
      this.node.setAttribute("aria-valuetext", words || face.label);
    }
  }

  /** The level under the hand, until the deck says where it is. */
  hand(axis, place) {
    this.inHand[axis] = place;
    this.levels(this.face);
  }

  letGo() {
    this.places = this.places.map((p, i) => this.inHand[i] ?? p);
    this.inHand = [];
  }

  /** The time that is left of the item that is on; `day` is the deck's time of day in milliseconds. */
  second(day) {
    const left = this.node.querySelector("[data-ends]");
    if (left) left.textContent = clock(((left.dataset.ends * 1000 - day) % 86400000 + 129600000) % 86400000 - 43200000) + " left";
  }

  /** The bar of what runs; gives whether it moves. */
  going() {
    const going = this.face?.going;
    let bar = this.node.querySelector(".bar");
    let left = this.node.querySelector(".left");
    if (!going) {
      bar?.remove();
      left?.remove();
      return false;
    }
    if (!bar) {
      bar = hidden(element("span", "bar"));
      this.node.append(bar);
    }
    if (!left) {
      left = hidden(element("span", "left"));
      this.node.append(left);
    }
    const now = this.connection.now();
    const whole = going.to - going.from;
    const done = whole <= 0 ? 1 : Math.min(1, Math.max(0, (now - going.from) / whole));
    bar.classList.toggle("guard", going.word === "HOLD" || going.word === "AGAIN");
    bar.style.setProperty("--done", done);
    left.textContent = going.word || (whole > 300 && now < going.to ? time(going.to - now) : "");
    return true;
  }
}

const FOUR = [[2, 1], [3, 2], [2, 3], [1, 2]];
const EIGHT = [[2, 1], [3, 1], [3, 2], [3, 3], [2, 3], [1, 3], [1, 2], [1, 1]];

function hidden(node) {
  node.setAttribute("aria-hidden", "true");
  return node;
}

function set(style, name, value) {
  if (value) style.setProperty(name, value);
  else style.removeProperty(name);
}

function mark(name) {
  const svg = document.createElementNS(SVG, "svg");
  svg.setAttribute("viewBox", "0 0 14 14");
  svg.setAttribute("class", "mark");
  svg.setAttribute("aria-hidden", "true");
  const path = document.createElementNS(SVG, "path");
  path.setAttribute("d", MARKS[name] || "");
  svg.append(path);
  return svg;
}

/** Whether two faces differ in nothing but what is changed in place. */
function same(a, b) {
  const still = f => JSON.stringify({...f, levels: f.levels?.length, going: 0, spoken: 0, held: 0});
  return still(a) === still(b);
}

/** Minutes and seconds. */
export function clock(millis) {
  const s = Math.max(0, Math.floor(millis / 1000));
  const two = n => String(n).padStart(2, "0");
  return s < 3600 ? `${two(Math.floor(s / 60))}:${two(s % 60)}` : `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
}

export function time(millis) {
  const s = Math.max(0, millis) / 1000;
  if (s < 10) return s.toFixed(1) + " s";
  if (s < 60) return Math.ceil(s) + " s";
  return clock(Math.ceil(s) * 1000);
}
