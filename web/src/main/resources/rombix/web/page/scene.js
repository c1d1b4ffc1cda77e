// What is in sight beside the page: on air, running, asked, said, wrong.

import {clock, element, time} from "/tile.js";

const SAID_MILLIS = 12000;
const $ = id => document.getElementById(id);

export class Scene {
  constructor(connection) {
    this.connection = connection;
    this.scene = {};
    $("stop-all").addEventListener("click", () => connection.say({do: "stop-all"}));
    $("ask").addEventListener("cancel", () => this.putOff = this.asked);
    setInterval(() => this.second(), 1000);
    this.second();
  }

  board(board) {
    this.you = board;
    $("stop-all").hidden = !board.stop;
  }

  /** Whether the board is being edited: nothing is pressed then. */
  building() {
    return this.scene.mode === "build";
  }

  show(scene) {
    this.scene = scene;
    const mode = {build: "BUILD", rehearse: "REHEARSE"}[scene.mode];
    $("mode").hidden = !mode;
    $("mode").textContent = mode || "";
    this.air();
    this.runs();
    this.message();
    this.ask();
  }

  second() {
    const now = new Date();
    $("clock").textContent = now.toTimeString().slice(0, 8);
    if ((this.scene.air || []).some(l => l.since !== undefined)) this.air();
    if (this.scene.said) this.message();
  }

  air() {
    const lamps = (this.scene.air || []).map(l => {
      const since = l.since === undefined ? "" : " " + clock(this.connection.now() - l.since);
      return element("span", "lamp " + (l.tone || ""), l.word + since);
    });
    const chosen = (this.scene.chosen || []).map(c => element("span", "chosen", c));
    $("air").replaceChildren(...lamps.slice(0, 1), ...chosen, ...lamps.slice(1));
  }

  runs() {
    const runs = this.scene.runs || [];
    $("runs").replaceChildren(...runs.map(r => {
      const card = element("div", "run");
      const words = element("div");
      const left = element("span", "", "");
      left.dataset.to = r.to;
      left.dataset.asks = r.asks || "";
      words.append(element("b", "", r.name), left);
      card.append(words);
      if (this.you?.press) {
        const stop = element("button", "", "STOP");
        stop.type = "button";
        stop.setAttribute("aria-label", "Stop " + r.name);
        stop.addEventListener("click", () => this.connection.say({do: "stop", run: r.id}));
        card.append(stop);
      }
      return card;
    }));
    this.going();
  }

  /** Counts down what runs; gives whether something does. */
  going() {
    const all = $("runs").querySelectorAll("[data-to]");
    all.forEach(left => {
      const to = Number(left.dataset.to) - this.connection.now();
      const words = left.dataset.asks ? "asks" : to > 0 ? time(to) : "runs";
      if (left.textContent !== words) left.textContent = words;
    });
    return all.length > 0;
  }

  message() {
    const {said, faults = [], asks = []} = this.scene;
    const line = $("message");
    const elsewhere = asks.find(a => a.on !== this.you?.you || a.id === this.putOff);
    if (elsewhere && this.you?.press) {
      const on = elsewhere.on === this.you.you ? "" : `, asked on ${elsewhere.on.replace(/^device /, "")}`;
      const answer = element("button", "", "Answer");
      answer.type = "button";
      answer.addEventListener("click", () => this.open(elsewhere));
      this.line(line, "talk", elsewhere.name + on, elsewhere.text, answer);
    } else if (said && this.connection.now() - said.at < SAID_MILLIS) {
      this.line(line, "talk", said.name, said.text);
    } else if (faults.length) {
      this.line(line, "", faults.at(-1).name, faults.at(-1).text);
    } else if (this.building()) {
      this.line(line, "talk", "The board is being edited", "Buttons press in Live and in Rehearse.");
    } else if (line.childNodes.length) {
      line.replaceChildren();
    }
  }

  line(line, kind, head, text, ...more) {
    const words = head + "\n" + text;
    if (line.dataset.words === words && line.childNodes.length) return;
    line.dataset.words = words;
    line.replaceChildren(...more, element("b", kind, head), document.createTextNode(text));
  }

  /** A question is asked where it was pressed; elsewhere the message line has it. */
  ask() {
    const {asks = []} = this.scene;
    if (!asks.some(a => a.id === this.asked)) {
      this.asked = undefined;
      if ($("ask").open) $("ask").close();
    }
    const mine = asks.find(a => a.on === this.you?.you && a.id !== this.putOff);
    if (mine && !$("ask").open && this.you?.press) this.open(mine);
  }

  open(asked) {
    this.asked = asked.id;
    this.putOff = undefined;
    $("ask-head").textContent = asked.name;
    $("ask-text").textContent = asked.text;
    const reply = value => {
      this.connection.say({do: "answer", q: asked.id, value});
      $("ask").close();
    };
    const box = $("ask-answers");
    if (asked.kind === "choice") {
      box.replaceChildren(...asked.options.map((option, i) => {
        const button = element("button", "", option);
        button.type = "button";
        button.addEventListener("click", () => reply(i));
        return button;
      }));
    } else {
      const field = element("input");
      field.type = asked.kind === "secret" ? "password" : asked.kind === "number" ? "number" : "text";
      field.step = "any";
      field.value = asked.preset ?? "";
      field.setAttribute("aria-labelledby", "ask-text");
      const done = element("button", "main", "Answer");
      const send = e => {
        e.preventDefault();
        reply(asked.kind === "number" ? Number(field.value) : field.value);
      };
      done.addEventListener("click", send);
      box.replaceChildren(field, done);
    }
    const close = element("button", "", "Later");
    close.type = "button";
    close.addEventListener("click", () => {
      this.putOff = asked.id;
      $("ask").close();
      this.message();
    });
    box.append(close);
    if (!$("ask").open) $("ask").showModal();
  }
}
