// Drives one installed browser; what is promised is checked on the page and, through the interface for programs, on the deck.
const puppeteer = require("puppeteer-core");
const {execFileSync} = require("child_process");
const fs = require("fs");
const https = require("https");
const os = require("os");
const [kind, url, board] = process.argv.slice(2);
const PATHS = {chromium: "/usr/bin/chromium", firefox: "/usr/bin/firefox-esr"};

const rombix = (...args) => execFileSync("./rombix", args, {encoding: "utf8"});
const pause = ms => new Promise(done => setTimeout(done, ms));
const invite = () => JSON.parse(rombix("devices", board, "--invite", "--json")).code;
let token = "";
/** Whether sockets are opened that are to be shut. */
let knocking = false;

async function api(path, method = "GET", body) {
  const answer = await fetch(url + "api/v1" + path, {method, body: body && JSON.stringify(body), headers: {Authorization: "Bearer " + token}});
  return answer.json();
}

/** Waits until something holds; gives how long that took, in milliseconds. */
async function until(words, so, limit = 15000) {
  const from = Date.now();
  let last;
  while (Date.now() - from < limit) {
    try {
      last = await so();
      if (last) {
        console.log(`ok: ${kind}: ${words}`);
        return Date.now() - from;
      }
    } catch (e) {
      last = e.message;
    }
    await pause(25);
  }
  throw new Error(`NOT SO: ${words} (last seen: ${last})`);
}

async function device(browser, name, width, height, code = invite()) {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  page.on("pageerror", e => {
    if (knocking && e.message.includes("/live")) return; // A socket that is ended on purpose.
    console.error("error on the page: " + e.message); process.exitCode = 1;
  });
  await page.setViewport({width, height, hasTouch: kind === "chromium", isMobile: kind === "chromium", deviceScaleFactor: 1});
  await page.goto(url + "#" + code);
  await page.waitForSelector("#join:not([hidden])", {timeout: 20000});
  await page.waitForFunction(c => document.getElementById("join-code").value === c, {}, code);
  await page.$eval("#join-name", (e, n) => e.value = n, name);
  await page.click("#join-form button");
  return page;
}

const shown = page => page.waitForSelector("#page .tile .label", {timeout: 20000});
const tile = id => "#button-" + id;
const held = async id => (await api("/buttons/" + id)).held;
const has = (page, id, css) => page.$eval(tile(id), (e, c) => e.classList.contains(c), css);

async function middle(page, selector) {
  const at = await page.$(selector);
  await at.evaluate(e => e.scrollIntoView({block: "center"}));
  return at.evaluate(e => {
    const b = e.getBoundingClientRect();
    return [b.x + b.width / 2, b.y + b.height / 2];
  });
}

async function turn(page, id) {
  await page.bringToFront();
  await page.click("#tab-" + id);
  await page.waitForSelector(`#tab-${id}[aria-current]`);
}

async function press(page, id) {
  await page.bringToFront();
  const [x, y] = await middle(page, tile(id));
  await page.mouse.move(x, y);
  await page.mouse.down();
}

/** Keeps a picture for the documentation, where a folder for them is named. */
async function picture(page, name) {
  if (process.env.SHOTS && kind === "chromium") {
    await page.emulateMediaFeatures([{name: "prefers-color-scheme", value: "dark"}]);
    await pause(500);
    await page.screenshot({path: `${process.env.SHOTS}/browser-${name}.png`});
  }
}

(async () => {
  const browser = await puppeteer.launch({browser: kind === "chromium" ? "chrome" : "firefox", executablePath: PATHS[kind], headless: true,
    acceptInsecureCerts: true,
    args: kind === "chromium" ? ["--no-sandbox", "--disable-dev-shm-usage"] : []});
  try {
    token = JSON.parse(rombix("devices", board, "--token", "Check " + kind, "--may", "press,stop-all,log", "--json")).token;
    const code = invite();
    const phone = await device(browser, kind + " phone", 390, 844, code);
    await shown(phone);
    console.log(`ok: ${kind}: a code lets a device in`);
    await picture(phone, "phone");
    const second = await device(browser, kind + " thief", 390, 844, code);
    await until("a code that was used is refused", () => second.$eval("#join-trouble", e => e.textContent.includes("isn't valid")));
    await second.close();
    const tablet = await device(browser, kind + " tablet", 1024, 768);
    await shown(tablet);

    // Press, hold, and both follow.
    await press(phone, "host-talk");
    await until("a press on one device is held on the deck", () => held("host-talk"));
    await until("and is seen on the other", () => has(tablet, "host-talk", "held"));
    await pause(2500);
    if (!await held("host-talk")) throw new Error("NOT SO: a hold lasts as long as the finger");
    await phone.mouse.up();
    await until("and ends with it", async () => !await held("host-talk"));

    // By key, as a keyboard or a screen reader does.
    await phone.bringToFront();
    await phone.focus(tile("host-talk"));
    await phone.keyboard.down("Enter");
    await until("a key holds too", () => held("host-talk"));
    await phone.keyboard.up("Enter");
    await until("and lets go", async () => !await held("host-talk"));

    // The page says that it is offline: at once on the screen, and on the deck.
    await press(phone, "host-talk");
    await until("held before the network goes", () => held("host-talk"));
    await phone.evaluate(() => dispatchEvent(new Event("offline")));
    await until("a lost connection greys the page at once", () => phone.evaluate(() => document.body.classList.contains("lost")), 500);
    const off = await until("and the hold ends on the deck", async () => !await held("host-talk"), 2500);
    await phone.mouse.up();
    await phone.evaluate(() => dispatchEvent(new Event("online")));
    await until("it connects again", () => phone.evaluate(() => !document.body.classList.contains("lost")));

    // The device stops in mid-hold, as one does whose network is pulled: no byte comes, and the socket stays open.
    await press(tablet, "host-talk");
    await until("held before the device falls silent", () => held("host-talk"));
    const pids = processes(browser.process().pid);
    pids.forEach(p => process.kill(p, "SIGSTOP"));
    const stopped = Date.now();
    await until("a hold of a device that fell silent ends", async () => !await held("host-talk"));
    pids.reverse().forEach(p => process.kill(p, "SIGCONT"));
    const release = (await api("/log?limit=20")).find(r => r.button === "host-talk" && r.place.startsWith("release"));
    const silent = release.atMillis - stopped; // As the deck's own log has it, however busy this machine is.
    if (silent > 2000) throw new Error(`NOT SO: within 2 s (it took ${silent} ms)`);
    console.log(`   released after ${silent} ms of silence, ${off} ms after going offline`);
    await tablet.mouse.up();
    await until("once it goes on, it knows and connects again", async () => await tablet.evaluate(() => performance.now() > 0 && !document.body.classList.contains("lost"))
      && (await api("/status")).board && await pause(1200) === undefined && await tablet.evaluate(() => !document.body.classList.contains("lost")));

    // A reload in mid-hold.
    await press(tablet, "host-talk");
    await until("held before a reload", () => held("host-talk"));
    await tablet.reload();
    await until("a reload lets go", async () => !await held("host-talk"), 2500);
    await tablet.mouse.up();
    await shown(tablet);
    const log = await api("/buttons/host-talk");
    if (log.fault) throw new Error("NOT SO: no fault (" + log.fault + ")");

    // A long press, a guard that wants to be held, a question.
    await turn(tablet, "questions");
    await press(tablet, "visitor");
    await pause(900);
    await tablet.mouse.up();
    await until("a long press is one", () => rombix("log", board, "--last", "40").includes("long-press"));
    await turn(tablet, "trouble");
    await press(tablet, "everything-quiet");
    await until("a guard shows that it wants to be held", () => tablet.$(tile("everything-quiet") + " .bar.guard"), 2000);
    await tablet.mouse.up();
    await pause(300);
    if ((await api("/buttons/everything-quiet")).running) throw new Error("NOT SO: a guarded button that was only tapped does nothing");
    await turn(phone, "observing");
    await phone.click(tile("ring-colour"));
    await until("a question is asked on the device that pressed", () => phone.$eval("#ask", e => e.open));
    await until("and told on the other", () => tablet.$eval("#message", (e, k) => e.textContent.includes(`asked on “${k} phone”`), kind));
    await phone.click("#ask-answers button");
    await until("the answer closes it", async () => !(await api("/questions")).length && !await phone.$eval("#ask", e => e.open));

    // Two fingers on two faders.
    await turn(tablet, "levels");
    const level = async id => (await api("/buttons/" + id)).levels[0].at;
    const before = [await level("host-level"), await level("guest-level")];
    const [ax, ay] = await middle(tablet, tile("host-level"));
    const [bx, by] = await middle(tablet, tile("guest-level"));
    if (kind === "chromium") {
      const one = await tablet.touchscreen.touchStart(ax, ay);
      const two = await tablet.touchscreen.touchStart(bx, by);
      for (let i = 1; i <= 8; i++) {
        await one.move(ax, ay - i * 6);
        await two.move(bx, by + i * 6);
      }
      await one.end();
      await two.end();
    } else {
      for (const [x, y, by1] of [[ax, ay, -48], [bx, by, 48]]) {
        await tablet.mouse.move(x, y);
        await tablet.mouse.down();
        await tablet.mouse.move(x, y + by1, {steps: 8});
        await tablet.mouse.up();
      }
    }
    await until("two fingers move two faders, apart", async () => await level("host-level") > before[0] + 0.05 && await level("guest-level") < before[1] - 0.05);

    await turn(tablet, "observing");
    await picture(tablet, "tablet");

    // What a person who can't see it is told.
    await tablet.evaluate(fs.readFileSync(require.resolve("axe-core/axe.min.js"), "utf8"));
    for (const id of ["doors", "levels", "booth", "night", "dome"]) {
      await turn(tablet, id);
      await pause(300);
      const found = await tablet.evaluate(() => axe.run());
      for (const v of found.violations) console.error(`${id}: ${v.id}: ${v.nodes[0].html}: ${v.nodes[0].failureSummary}`);
      if (found.violations.length) throw new Error("NOT SO: axe finds nothing on " + id);
    }
    console.log(`ok: ${kind}: axe finds nothing`);
    const small = await tablet.$$eval(".tile", all => all.filter(t => t.getBoundingClientRect().width < 44 || t.getBoundingClientRect().height < 44).length);
    if (small) throw new Error("NOT SO: no tile is smaller than 44 px");

    // Nothing is fetched from anywhere else, and no size is exceeded.
    const fetched = await tablet.evaluate(() => performance.getEntriesByType("resource").map(r => [r.name, r.decodedBodySize]));
    if (fetched.some(([name]) => !name.startsWith(url))) throw new Error("NOT SO: everything is from here " + fetched);

    await shutDoors(browser, tablet, phone);

    // Thrown out.
    rombix("devices", board, "--remove", kind + " tablet");
    const out = await until("a device that is removed is gone", () => tablet.$eval("#join", e => !e.hidden), 2000);
    if (out > 1000) throw new Error(`NOT SO: within 1 s (it took ${out} ms)`);

    // Leaving of its own accord.
    await phone.bringToFront();
    await phone.$eval("#leave", b => b.click());
    await phone.$eval("#leaving button[value=leave]", b => b.click());
    await until("a device that leaves is asked for a code", () => phone.$eval("#join", e => !e.hidden), 5000);
    if (rombix("devices", board).includes(kind + " phone")) throw new Error("NOT SO: a device that left is off the list");
    rombix("devices", board, "--remove", "Check " + kind);
  } catch (e) {
    console.error(kind + ": " + e.message);
    process.exitCode = 1;
  } finally {
    await browser.close();
  }
})();

/** What must not get in: another page, another name, a message that is too long, a crowd without tokens. */
async function shutDoors(browser, tablet, phone) {
  knocking = true;
  // A page of another server on this computer: its browser has the cookie of the deck's page.
  const folder = fs.mkdtempSync(os.tmpdir() + "/other-");
  execFileSync("openssl", ["req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=other", "-keyout", folder + "/key", "-out", folder + "/cert"], {stdio: "ignore"});
  const other = https.createServer({key: fs.readFileSync(folder + "/key"), cert: fs.readFileSync(folder + "/cert")}, (_, answer) => answer.end("<title>other</title>"));
  await new Promise(done => other.listen(0, done));
  const stranger = await tablet.browserContext().newPage();
  await stranger.goto(`https://${new URL(url).hostname}:${other.address().port}/`);
  const opened = page => page.evaluate(at => new Promise(done => {
    const socket = new WebSocket(at);
    socket.onopen = () => done("open");
    socket.onclose = () => done("shut");
  }), url.replace(/^http/, "ws") + "live");
  if (await opened(tablet) !== "open") throw new Error("NOT SO: the deck's own page gets a socket");
  if (await opened(stranger) !== "shut") throw new Error("NOT SO: a page of another origin gets no socket");
  const read = await stranger.evaluate(at => fetch(at, {credentials: "include"}).then(() => "read", () => "shut"), url + "api/v1/buttons");
  if (read !== "shut") throw new Error("NOT SO: a page of another origin reads nothing");
  console.log(`ok: ${kind}: a page of another origin gets in nowhere`);
  const named = await new Promise(done => https.get(url, {headers: {Host: "other.example"}}, answer => { answer.resume(); done(answer.statusCode); }));
  if (named !== 421) throw new Error("NOT SO: under another name the deck shows nothing, but " + named);
  console.log(`ok: ${kind}: under another name nothing is shown`);
  await stranger.close();
  other.close();
  fs.rmSync(folder, {recursive: true});

  const ended = await tablet.evaluate(at => new Promise(done => {
    const socket = new WebSocket(at);
    socket.onopen = () => socket.send("x".repeat(1000000));
    socket.onclose = e => done(e.code);
    setTimeout(() => done("still open"), 5000);
  }), url.replace(/^http/, "ws") + "live");
  if (typeof ended !== "number") throw new Error("NOT SO: a frame that is too long ends its connection: " + ended);
  console.log(`ok: ${kind}: a frame that is too long ends its connection (${ended})`);

  const knock = () => new Promise(done => https.get(url + "live", {agent: false, headers: {Upgrade: "websocket", Connection: "Upgrade", Origin: url.slice(0, -1),
    "Sec-WebSocket-Version": "13", "Sec-WebSocket-Key": "dGhlIHNhbXBsZSBub25jZQ=="}}, answer => { answer.resume(); answer.on("end", () => done(answer.statusCode)); })
    .on("upgrade", () => done("let in")).on("error", e => done(e.code)));
  const answers = {};
  for (let i = 0; i < 20; i++) {
    for (const answer of await Promise.all(Array.from({length: 50}, knock))) answers[answer] = (answers[answer] ?? 0) + 1;
  }
  if (answers["let in"] || !answers[401]) throw new Error("NOT SO: nobody gets in without a token: " + JSON.stringify(answers));
  await turn(phone, "doors");
  await press(phone, "host-talk");
  await until("after 1,000 handshakes without a token " + JSON.stringify(answers) + " a press arrives as ever", () => held("host-talk"), 2000);
  await phone.mouse.up();
  await until("and its release", async () => !await held("host-talk"));
}

/** A process and all that it started. */
function processes(pid) {
  const children = execFileSync("sh", ["-c", `ps -o pid= --ppid ${pid} || true`], {encoding: "utf8"}).split("\n").map(Number).filter(Boolean);
  return [pid, ...children.flatMap(processes)];
}
