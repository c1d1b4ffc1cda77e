package rombix.web.deck;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import rombix.core.board.Page;
import rombix.core.chain.DeckStep.Show.Way;
import rombix.core.event.Happening;
import rombix.core.touch.DeckPort;
import rombix.web.access.Access;
import rombix.web.json.WebJson;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/**
 * One device that shows a page: it is sent what changed since it was sent something last, as often as it can take it, and
 * what it says is done. One thread's.
 *
 * <p>
 * While it holds something it has to say so every half second; where it does not for {@value #PATIENCE_MILLIS} ms, all is
 * let go. A connection that was pulled says nothing.
 */
public final class DeviceScreen {
    static final int PATIENCE_MILLIS = 1500;
    private static final int MOST_BACK = 20;

    private final LiveFaces faces;
    private final DeviceHand hand;
    private final Consumer<String> out;
    private final String source;
    private final List<String> trail = new ArrayList<>();
    private Access access;
    private String page;
    private long sent;
    private boolean boardDue = true;
    private boolean pageDue = true;
    private long heardMillis;

    /**
     * @param port the device's own
     * @param source as the log names it
     * @param out sends a message to it
     */
    DeviceScreen(LiveFaces faces, DeckPort port, String source, Access access, Consumer<String> out) {
        this.faces = faces;
        this.access = access;
        this.out = out;
        this.source = source;
        hand = new DeviceHand(faces, port, access);
        page = first();
    }

    private List<Page> pages() {
        return faces.board().pages().stream().filter(p -> access.sees(p.id())).toList();
    }

    private String first() {
        return pages().stream().filter(p -> !p.hidden()).findFirst().map(Page::id).orElse("");
    }

    void access(Access now) {
        access = now;
        hand.access(now);
        boardDue = true;
        if (!now.sees(page)) {
            show(first());
        }
        trail.removeIf(p -> !now.sees(p)); // Back leads to none of those either.
    }

    String page() {
        return page;
    }

    private Optional<Page> there(String id) {
        return pages().stream().filter(p -> p.id().equals(id)).findFirst();
    }

    private void show(String id) {
        if (!id.equals(page)) {
            trail.add(page);
            if (trail.size() > MOST_BACK) {
                trail.removeFirst();
            }
            page = id;
            pageDue = true;
        }
    }

    private void back() {
        if (!trail.isEmpty()) {
            page = trail.removeLast();
            pageDue = true;
        }
    }

    /** Something happened that may turn the page: what this device pressed turns its own page, and nobody else's. */
    void happened(Happening happening) {
        if (!(happening instanceof Happening.PageShown shown) || !shown.source().equals(source)) {
            return;
        }
        String id = shown.page();
        if (shown.way() == Way.BACK) {
            back();
        } else if (id == null) {
            beside(shown.way() == Way.NEXT ? 1 : -1);
        } else if (there(id).isPresent()) {
            show(id);
        }
    }

    private void beside(int by) {
        List<Page> tabs = pages().stream().filter(p -> !p.hidden()).toList();
        int at = tabs.stream().map(Page::id).toList().indexOf(page);
        if (!tabs.isEmpty()) {
            show(tabs.get(Math.floorMod(at + by, tabs.size())).id());
        }
    }

    /** Sends all that it has not seen yet; nothing where there is nothing. */
    void send() {
        if (faces.anew(sent)) {
            boardDue = true;
            pageDue = true;
            if (there(page).isEmpty()) {
                page = first();
            }
        }
        List<String> parts = new ArrayList<>();
        if (boardDue) {
            parts.add("\"board\":" + WebJson.text(LayoutJson.board(faces.board(), access, source)));
        }
        long since = pageDue ? 0 : sent;
        if (pageDue) {
            faces.make(page);
            there(page).ifPresent(p -> parts.add("\"page\":" + WebJson.text(LayoutJson.page(p))));
        }
        String scene = faces.scene(access, boardDue ? -1 : sent);
        if (scene != null) {
            parts.add("\"scene\":" + scene);
        }
        String changed = faces.faces(page, since);
        if (!changed.isEmpty()) {
            parts.add("\"faces\":{" + changed + "}");
        }
        sent = faces.change();
        boardDue = false;
        pageDue = false;
        if (!parts.isEmpty()) {
            say(String.join(",", parts));
        }
    }

    /** Says that the connection is alive. */
    void greet() {
        say("");
    }

    private void say(String members) {
        out.accept("{\"now\":" + faces.millis() + ",\"day\":" + faces.dayMillis() + (members.isEmpty() ? "" : ",")
                + members + "}");
    }

    /** Takes what the device said; what it may not do, or nobody knows, is not done. */
    void take(String text, long nowMillis) {
        JsonNode message;
        try {
            message = WebJson.MAPPER.readTree(text);
        } catch (JacksonException e) {
            return;
        }
        String what = message.path("do").asString("");
        heardMillis = nowMillis;
        switch (what) {
            case "holding" -> greet();
            case "page" -> {
                String id = message.path("id").asString("");
                if (there(id).isPresent() && !id.equals(page)) {
                    hand.letGo();
                    show(id);
                }
                send();
            }
            case "back" -> {
                back();
                send();
            }
            case "let-go" -> hand.letGo();
            default -> hand.does(what, message);
        }
    }

    /** Lets go of what is held where the device has said nothing for too long. @return whether it is to be asked again */
    boolean watch(long nowMillis) {
        if (!hand.holds()) {
            return false;
        }
        if (hand.building() || nowMillis - heardMillis > PATIENCE_MILLIS) {
            hand.letGo();
            return false;
        }
        return true;
    }

    boolean holds() {
        return hand.holds();
    }

    /** The connection is gone. */
    void close() {
        hand.letGo();
    }
}
