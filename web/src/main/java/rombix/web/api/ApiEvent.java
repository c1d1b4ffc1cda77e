package rombix.web.api;

import rombix.web.json.WebJson;

/** A server-sent event: its type, and what is told with it as JSON. */
public record ApiEvent(String type, Object data) {
    /** As it goes over the wire. */
    public String text() {
        return "event: " + type + "\ndata: " + WebJson.text(data) + "\n\n";
    }
}
