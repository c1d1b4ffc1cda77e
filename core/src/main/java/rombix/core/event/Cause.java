package rombix.core.event;

import java.util.List;

/**
 * How a gear is, or why it cannot be worked, one for each thing that can be said of it: a reason that code goes by, and
 * what people read. {@code %1} to {@code %3} stand for what is told along, such as an address. All words of all links
 * about the connection stand here.
 */
public enum Cause {
    READY(Reason.NONE, "ready", ""),
    /** %1: the name that it got; %2: the name that it wanted. */
    READY_AS(Reason.NONE, "ready as %1", "The name “%2” is taken there."),
    /** %1: what is sent, and how often. */
    SENDING(Reason.NONE, "%1", ""), CONNECTING(Reason.NONE, "connecting", ""), TWIN(Reason.NONE, "twin", ""),
    /** %1: what is wrong with the file. */
    CLIP_UNREADABLE(Reason.NONE, "%1", "Choose the file of the clip again, or put it back where it was."),

    /** %1: its address. */
    NO_ANSWER(Reason.UNREACHABLE, "no response from %1", Say.CHECK),
    /** %1: the name in its address. */
    NAME_UNKNOWN(Reason.NAME_UNKNOWN, "no computer named “%1” was found",
            "Check the spelling, or use its IP address." + Say.AGAIN),
    /** %1: its address. */
    NOTHING_LISTENS(Reason.NOTHING_LISTENS, "no response from %1",
            "The host is up, but nothing is listening on that port. Start the program there, or check the port."
                    + Say.AGAIN),
    /** %1: its address. */
    NO_ANSWER_TO_TLS(Reason.UNREACHABLE, "no TLS response from %1", "Check the port, or turn TLS off." + Say.AGAIN),
    /** A datagram came back. %1: how that was noticed. */
    DATAGRAM_REFUSED(Reason.NOTHING_LISTENS, "%1",
            "Check that it is switched on and that the address is correct. Commands are still sent."), NOTHING_AT_THE_LAMPS(
                    Reason.NOTHING_LISTENS, "nothing is listening",
                    "Nothing is listening at the node's address. Levels are still sent. Check that the node is on."),
    /** %1: what the network says. */
    CANNOT_BE_SENT_TO(Reason.UNREACHABLE, "can't be sent to", "The network says: %1"), ENDED(Reason.UNREACHABLE,
            "it closed the connection", Say.CHECK),
    /** %1: what it said. */
    ENDED_SAYING(Reason.REFUSED, "it closed the connection: %1",
            "It may require a login: set user and password under Connection."), BROKE(Reason.UNREACHABLE,
                    "the connection was lost", Say.CHECK),
    /** %1: its name. */
    NO_SERIAL_PORT(Reason.UNREACHABLE, "there is no serial port “%1”",
            "Plug it in, or choose another under Connection."),
    /** %1: its name; %2: which there are. */
    NO_MIDI_PORT(Reason.UNREACHABLE, "no MIDI port “%1”",
            "Plug it in, or choose another under Connection. There %2."),
    /** %1: its name; %2: what the system says. */
    PORT_TAKEN(Reason.UNREACHABLE, "can't open the port “%1”: %2",
            "If another program is using it, close that." + Say.AGAIN),
    /** %1: its name. */
    PORT_GONE(Reason.UNREACHABLE, "the port “%1” was disconnected", "Plug it in again."),
    /** %1: its number. */
    RECEIVE_PORT_TAKEN(Reason.UNREACHABLE, "another program is using the receive port %1",
            "Close that program, or set another receive port under Connection."),
    /** %1: its name. */
    NO_OUTPUT(Reason.UNREACHABLE, "the output “%1” isn't available",
            "Plug it in, or choose another output in the gear's window."),
    /** %1: its name; %2: what the system says. */
    OUTPUT_TAKEN(Reason.UNREACHABLE, "can't open the output “%1”: %2",
            "If another program has exclusive use of it, close that." + Say.AGAIN),
    /** Anything that has words already, such as what the system says. %1: those. */
    OTHER(Reason.UNREACHABLE, "%1", Say.CHECK),

    HAS_NOT_ANSWERED(Reason.SILENT, "silent",
            "It hasn't replied, so its readings are unknown. Commands are still sent."), NOT_LET_IN(Reason.SILENT,
                    "connected, but the login was refused", Say.CHECK), STOPPED_ANSWERING(Reason.FROZEN,
                            "it no longer responds",
                            "It may have frozen: check it, or restart it." + Say.AGAIN),

    /** %1: what is wrong with it. */
    WRONG_ADDRESS(Reason.WRONGLY_SET, "%1", "Set its address."),
    /** %1: which, what is set and what can be. */
    WRONG_SETTING(Reason.WRONGLY_SET, "%1", "Choose it again under Connection, Settings."),
    /** %1: what is wrong with it. */
    WRONG_PATH(Reason.WRONGLY_SET, "its path is not valid: %1", "Check the path under Connection, Settings."),
    /** %1: its protocol. */
    NEITHER_SECRETS_NOR_TLS(Reason.WRONGLY_SET, "%1 supports neither secrets nor TLS",
            "Remove them in the board file, or use another protocol."), GUEST(Reason.NOT_PERMITTED,
                    "guest: not connected", "Trust the board to connect its gear."),
    /** %1: what the system does not let Rombix do. */
    KEYS_NOT_PERMITTED(Reason.NOT_PERMITTED, "%1", "Keys, clicks and windows don't work; everything else does."),
    /** %1: its name. */
    PORT_NOT_PERMITTED(Reason.NOT_PERMITTED, "no permission for the serial port “%1”",
            "On Linux, join the group that owns it (often dialout)."),

    LOGIN_WANTED(Reason.LOGIN_REFUSED, Say.LOGIN,
            "It may require a login: set user and secret under Connection."),
    /** %1: the secret's name. */
    LOGIN_WRONG(Reason.LOGIN_REFUSED, Say.LOGIN,
            "Check the user, and replace the secret “%1” under Connection."), NO_ACCOUNTS(Reason.LOGIN_REFUSED,
                    "it doesn't support accounts (SASL)",
                    "Choose the server password under Connection, Settings."),
    /** %1: how long it had. */
    LOGIN_UNANSWERED(Reason.SILENT, "connected, but no response to the login within %1",
            "It may be busy, or expect a different login: compare its card with its manual."
                    + Say.AGAIN),
    /** %1: how it answered. */
    GREETING_REFUSED(Reason.LOGIN_REFUSED, "%1",
            "It replied that to the login. Check user and secret."),
    /** %1: the secret's name. */
    SECRET_MISSING(Reason.SECRET_MISSING, "needs the secret “%1”, which isn't on this computer",
            "Set it under Connection, or with “rombix secrets set %1”."),
    /** %1: the secret's name. */
    SECRET_NOT_ALLOWED(Reason.NOT_PERMITTED, "needs the secret “%1”, which this board isn't allowed to send",
            "Open the board and trust it, or add “--allow-secret %1”."),

    BROKER_REFUSES(Reason.REFUSED, "the broker refuses the connection",
            "Check the broker's permissions, and user and secret under Connection."),
    /** %1: what it says. */
    TOPICS_REFUSED(Reason.REFUSED, "the broker refuses the topics: %1",
            "Check which topics the broker lets this user read."),
    /** %1: what it says, if it says something. */
    NOT_WEBSOCKET(Reason.REFUSED, "something is listening there, but not a WebSocket server%1", "Check the port."),
    /** %1: how it answers. */
    NO_WEBSOCKET(Reason.REFUSED, "no WebSocket at this address and path (the reply was %1)",
            "Check the path under Connection, Settings."),
    /** %1: the room; %2: by whom; %3: what was said to it. */
    REMOVED(Reason.REFUSED, "was removed from %1 by %2", "Reason given: %3. Rombix tries to join again."),
    /** %1: what it says. */
    STILL_SENT(Reason.REFUSED, "refused: %1", "Commands are still sent. Ask the room's operators."),

    /** %1: what is wrong with it. */
    CERTIFICATE_UNREADABLE(Reason.WRONGLY_SET, "the certificate set for it can't be read: %1",
            "Choose the file again under Connection; it begins with BEGIN CERTIFICATE."),
    /** %1: its name. */
    OWN_CERTIFICATE_MISSING(Reason.SECRET_MISSING, "needs the client certificate “%1”, which isn't on this computer",
            "Choose its file under Connection."),
    /** %1: its name; %2: what is wrong with it. */
    OWN_CERTIFICATE_UNUSABLE(Reason.WRONGLY_SET, "the client certificate “%1” can't be used: %2",
            "Choose its file again under Connection."), CLIENT_CERTIFICATE_WANTED(Reason.CERTIFICATE_WANTED,
                    "it requires a client certificate",
                    "Add one that it accepts, with its key, under Connection."), CLIENT_CERTIFICATE_REJECTED(
                            Reason.CERTIFICATE_WANTED, "it rejected the client certificate",
                            "Choose one that it accepts, with its key, under Connection."), CERTIFICATE_EXPIRED(
                                    Reason.TLS_UNTRUSTED, "its certificate has expired",
                                    Say.CLOCK), CERTIFICATE_NOT_YET_VALID(Reason.TLS_UNTRUSTED,
                                            "its certificate isn't valid yet",
                                            Say.CLOCK), CERTIFICATE_OF_ANOTHER_HOST(Reason.TLS_UNTRUSTED,
                                                    "its certificate is for another host name",
                                                    "Use the host name of the certificate as the address, or trust the first certificate seen."), CERTIFICATE_NOT_THE_ONE_GIVEN(
                                                            Reason.TLS_UNTRUSTED,
                                                            "its certificate is neither the one set here nor signed by it",
                                                            Say.OWN), CERTIFICATE_NOT_SIGNED(Reason.TLS_UNTRUSTED,
                                                                    "its certificate isn't signed by a trusted authority",
                                                                    Say.OWN), CERTIFICATE_CHANGED(Reason.TLS_CHANGED,
                                                                            "its certificate has changed since it was first seen",
                                                                            "If it was renewed, forget the first one under Connection. If not, someone may be intercepting the connection."), KNOWN_CERTIFICATES_DAMAGED(
                                                                                    Reason.WRONGLY_SET,
                                                                                    "the list of known certificates on this computer is damaged",
                                                                                    "Compare its certificate, and forget the first one under Connection."), TLS_NOT_SPOKEN(
                                                                                            Reason.TLS_NOT_SPOKEN,
                                                                                            "something is listening there, but without TLS%1",
                                                                                            "Check the port, or turn TLS off."),
    /** %1: what the other end says. */
    TLS_NOT_AGREED(Reason.UNREACHABLE, "TLS negotiation failed: %1", "Check the port, or turn TLS off." + Say.AGAIN),

    /** %1: what. */
    TROUBLE(Reason.TROUBLE, "internal error: %1", "Restart Rombix and report the problem.");

    /** Why gear cannot be worked, or not as it should: what code goes by, as words are for people. */
    public enum Reason {
        /** Nothing is wrong, or not yet. */
        NONE,
        /** Nothing answers there, or there is no way to it. */
        UNREACHABLE,
        /** The computer is there and says that nothing listens. */
        NOTHING_LISTENS,
        /** Nobody here knows a computer of that name. */
        NAME_UNKNOWN,
        /** What is set for it cannot be an address, or asks for what its protocol cannot do. */
        WRONGLY_SET,
        /** It answers, and will not have what is wanted. */
        REFUSED,
        /** Its certificate isn't trusted: unknown authority, other host name, or expired. */
        TLS_UNTRUSTED,
        /** It shows another certificate than the one that was seen first. */
        TLS_CHANGED,
        /** It does not speak TLS there. */
        TLS_NOT_SPOKEN,
        /** It wants a certificate of ours that it knows. */
        CERTIFICATE_WANTED,
        /** It does not take this user or secret. */
        LOGIN_REFUSED,
        /** The secret that it wants is not on this computer. */
        SECRET_MISSING,
        /** The board may not do that here, or the system does not let Rombix. */
        NOT_PERMITTED,
        /** It has never answered. */
        SILENT,
        /** It answered, and no longer does. */
        FROZEN,
        /** Something went wrong inside Rombix. */
        TROUBLE;

        /** As other programs read it: {@code login-refused}. */
        public String id() {
            return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
        }
    }

    /** What several say. */
    private static final class Say {
        private static final String AGAIN = " Rombix tries again every few seconds.";
        private static final String CHECK = "Check that it is switched on and that the address is correct." + AGAIN;
        private static final String LOGIN = "connected, but the login was refused";
        private static final String CLOCK = "Renew it, or check the clock of this computer.";
        private static final String OWN = "For devices of your own, set the certificate, or trust the first certificate seen.";
    }

    private final Reason reason;
    private final String words;
    private final String hint;

    Cause(Reason reason, String words, String hint) {
        this.reason = reason;
        this.words = words;
        this.hint = hint;
    }

    public Reason reason() {
        return reason;
    }

    /** One short clause. */
    public String words(List<String> told) {
        return filled(words, told);
    }

    /** What to try next; empty where nothing is wrong. */
    public String hint(List<String> told) {
        return filled(hint, told);
    }

    private static String filled(String text, List<String> told) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            int place = c == '%' && i + 1 < text.length() ? text.charAt(i + 1) - '1' : -1;
            if (place >= 0 && place < 3) {
                all.append(place < told.size() ? told.get(place) : "");
                i++;
            } else {
                all.append(c);
            }
        }
        return all.toString();
    }
}
