// Puts the page together.

import {Connection} from "/connection.js";
import {Hand} from "/hand.js";
import {Scene} from "/scene.js";
import {Tile, element} from "/tile.js";

const $ = id => document.getElementById(id);
const LEAST = 76; // A narrower tile has no room for its words.
const ROOMY = 92;
let board = null;
let page = null;
let tiles = new Map();

const connection = new Connection(take, lost, refused);
const scene = new Scene(connection);
const hand = new Hand($("page"), id => tiles.get(id), connection, () => board?.press && connection.there && !scene.building());

function take(message) {
  if (message.board) {
    board = message.board;
    scene.board(board);
    $("board").textContent = board.name;
    document.title = board.name + " · Rombix";
    tabs();
    $("join").hidden = true;
  }
  if (message.page) lay(message.page);
  if (message.scene) {
    scene.show(message.scene);
    document.body.classList.toggle("building", message.scene.mode === "build");
    able();
  }
  for (const [id, face] of Object.entries(message.faces || {})) tiles.get(id)?.show(face);
  if (message.faces) tiles.forEach(t => t.second(connection.day()));
  move();
}

function tabs() {
  $("tabs").replaceChildren(...board.pages.filter(p => !p.hidden || p.id === page?.id).map(p => {
    const tab = element("button", "", p.name);
    tab.type = "button";
    tab.id = "tab-" + p.id;
    if (p.id === page?.id) tab.setAttribute("aria-current", "page");
    tab.addEventListener("click", () => connection.say({do: "page", id: p.id}));
    return tab;
  }));
  document.querySelector("#tabs [aria-current]")?.scrollIntoView({block: "nearest", inline: "nearest"});
}

function lay(next) {
  if (page?.id !== next.id) hand.letGo();
  page = next;
  tiles = new Map(next.buttons.map(b => [b.id, new Tile(b, connection)]));
  const main = $("page");
  main.setAttribute("aria-label", next.name);
  main.style.setProperty("--columns", next.columns);
  main.style.setProperty("--rows", next.rows);
  fit();
  const inOrder = [...next.buttons].sort((a, b) => (a.row || 0) - (b.row || 0) || (a.column || 0) - (b.column || 0));
  main.replaceChildren(...inOrder.map(b => tiles.get(b.id).node));
  able();
  tabs();
}

/** Whether a hand may work the tiles now. */
function able() {
  const no = String(!board?.press || scene.building());
  tiles.forEach(t => t.node.setAttribute("aria-disabled", no));
}

/** Breaks the rows where the tiles would get too narrow. */
function fit() {
  if (!page) return;
  const main = $("page");
  const room = main.clientWidth - 16;
  const flows = room / page.columns < LEAST && innerHeight > innerWidth;
  const fits = Math.max(2, Math.floor(room / ROOMY));
  main.className = (page.fill || "") + (flows ? " flows" : "");
  main.style.setProperty("--fits", fits);
  const cells = page.buttons.reduce((sum, b) => sum + Math.min(b.width || 1, fits) * (b.height || 1), 0);
  const lines = Math.ceil(cells / fits);
  const row = Math.max(room / fits, Math.min(150, (main.clientHeight - 10) / lines - 6));
  main.style.setProperty("--row", flows ? Math.floor(row) + "px" : "60px");
}
addEventListener("resize", fit);

/** Bars and times move as long as something runs. */
let moving = false;
function move() {
  if (moving) return;
  moving = true;
  const slow = matchMedia("(prefers-reduced-motion: reduce)").matches;
  const next = () => {
    let goes = scene.going();
    tiles.forEach(t => goes = t.going() || goes);
    moving = goes;
    if (goes) slow ? setTimeout(next, 500) : requestAnimationFrame(next);
  };
  next();
}

function lost(gone) {
  document.body.classList.toggle("lost", gone);
  document.body.classList.remove("starting");
  $("lost").hidden = !gone;
  if (gone) hand.letGo();
}

function refused(ended) {
  lost(false);
  $("join").hidden = false;
  $("join-trouble").textContent = ended ? "This device no longer has access." : "";
  if (location.hash.length > 1) {
    $("join-code").value = decodeURIComponent(location.hash.slice(1));
    history.replaceState(null, "", "/");
  }
  $("join-name").value ||= guess();
  $($("join-code").value ? "join-name" : "join-code").focus();
}

function guess() {
  const touch = matchMedia("(pointer: coarse)").matches;
  return touch ? (Math.min(screen.width, screen.height) < 600 ? "Phone" : "Tablet") : "Computer";
}

$("join-form").addEventListener("submit", async e => {
  e.preventDefault();
  $("join-trouble").textContent = "";
  try {
    const answer = await fetch("/join", {
      method: "POST", headers: {"Content-Type": "application/json"},
      body: JSON.stringify({code: $("join-code").value, name: $("join-name").value})
    });
    if (answer.ok) {
      $("join-code").value = "";
      connection.open();
    } else {
      $("join-trouble").textContent = (await answer.json()).detail;
    }
  } catch {
    $("join-trouble").textContent = "Rombix can't be reached. Check that it is running and shows pages.";
  }
});

$("full").addEventListener("click", () => document.fullscreenElement ? document.exitFullscreen() : document.documentElement.requestFullscreen?.());
$("full").hidden = !document.fullscreenEnabled;

$("leave").addEventListener("click", () => $("leaving").showModal());
$("leaving").addEventListener("close", async () => {
  if ($("leaving").returnValue !== "leave") return;
  hand.letGo();
  await fetch("/leave", {method: "POST"}); // The deck ends the connection; the page asks for a code then.
});

/** The screen stays on while the page is in sight. */
async function awake() {
  try {
    if (document.visibilityState === "visible") await navigator.wakeLock?.request("screen");
  } catch {
    // The system saves power; the page works all the same.
  }
}
document.addEventListener("visibilitychange", awake);
addEventListener("pointerdown", awake, {once: true});
awake();
setInterval(() => connection.there && tiles.forEach(t => t.second(connection.day())), 1000);
connection.again(0);
