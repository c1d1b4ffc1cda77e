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
    NO_ANSWER(Reason.UNREACHABLE, "no answer at %1", Say.CHECK),
    /** %1: the name in its address. */
    NAME_UNKNOWN(Reason.NAME_UNKNOWN, "no computer named “%1” was found",
            "Check the spelling, or use its IP address." + Say.AGAIN),
    /** %1: its address. */
    NOTHING_LISTENS(Reason.NOTHING_LISTENS, "no answer at %1",
            "The computer is up, but nothing listens on that port. Start the program there, or check the port."
                    + Say.AGAIN),
    /** %1: its address. */
    NO_ANSWER_TO_TLS(Reason.UNREACHABLE, "no answer to TLS at %1", "Check the port, or turn TLS off." + Say.AGAIN),
    /** A datagram came back. %1: how that was noticed. */
    DATAGRAM_REFUSED(Reason.NOTHING_LISTENS, "%1",
            "Check that it is switched on and that its address is right. Commands are still sent."), NOTHING_AT_THE_LAMPS(
                    Reason.NOTHING_LISTENS, "nothing listens",
                    "Nothing listens at the lamps' address. Levels are still sent; check that the node is on."),
    /** %1: what the network says. */
    CANNOT_BE_SENT_TO(Reason.UNREACHABLE, "cannot be sent to", "The network says: %1"), ENDED(Reason.UNREACHABLE,
            "it ended the connection", Say.CHECK),
    /** %1: what it said. */
    ENDED_SAYING(Reason.REFUSED, "it ended the connection: %1",
            "It may want a user and a password: check them in the gear's window."), BROKE(Reason.UNREACHABLE,
                    "the connection broke", Say.CHECK),
    /** %1: its name. */
    NO_SERIAL_PORT(Reason.UNREACHABLE, "no serial port “%1” is here",
            "Plug it in, or choose another in the gear's window."),
    /** %1: its name; %2: which there are. */
    NO_MIDI_PORT(Reason.UNREACHABLE, "no MIDI port “%1”",
            "Plug it in, or choose another in the gear's window. There %2."),
    /** %1: its name; %2: what the system says. */
    PORT_TAKEN(Reason.UNREACHABLE, "the port “%1” cannot be opened: %2",
            "If another program is using it, close that." + Say.AGAIN),
    /** %1: its name. */
    PORT_GONE(Reason.UNREACHABLE, "the port “%1” is gone", "Plug it in again."),
    /** %1: its number. */
    RECEIVE_PORT_TAKEN(Reason.UNREACHABLE, "another program listens at its receive port %1",
            "Close that program, or set another receive port in the gear's window."),
    /** %1: its name. */
    NO_OUTPUT(Reason.UNREACHABLE, "the output “%1” is not there",
            "Plug it in, or choose another output in the gear's window."),
    /** %1: its name; %2: what the system says. */
    OUTPUT_TAKEN(Reason.UNREACHABLE, "the output “%1” cannot be opened: %2",
            "If another program has it alone, close that." + Say.AGAIN),
    /** Anything that has words already, such as what the system says. %1: those. */
    OTHER(Reason.UNREACHABLE, "%1", Say.CHECK),

    HAS_NOT_ANSWERED(Reason.SILENT, "silent",
            "It has not answered, so its readings are unknown. Commands are still sent."), NOT_LET_IN(Reason.SILENT,
                    "it took the connection, and did not let us in", Say.CHECK), STOPPED_ANSWERING(Reason.FROZEN,
                            "it does not answer any more",
                            "It may have stopped responding: look at it, or restart it." + Say.AGAIN),

    /** %1: what is wrong with it. */
    WRONG_ADDRESS(Reason.WRONGLY_SET, "%1", "Set its address."),
    /** %1: which, what is set and what can be. */
    WRONG_SETTING(Reason.WRONGLY_SET, "%1", "Choose it again under Connection settings in the gear's window."),
    /** %1: what is wrong with it. */
    WRONG_PATH(Reason.WRONGLY_SET, "its path is not valid: %1", "Check the path among its settings."),
    /** %1: its protocol. */
    NEITHER_SECRETS_NOR_TLS(Reason.WRONGLY_SET, "%1 knows neither secrets nor TLS",
            "Take them away from the board's file, or reach it another way."), GUEST(Reason.NOT_PERMITTED,
                    "guest: not reached", "Trust the board to reach its gear."),
    /** %1: what the system does not let Rombix do. */
    KEYS_NOT_PERMITTED(Reason.NOT_PERMITTED, "%1", "Keys, clicks and windows do nothing here; the rest works."),
    /** %1: its name. */
    PORT_NOT_PERMITTED(Reason.NOT_PERMITTED, "the serial port “%1” may not be used by you",
            "On Linux, be a member of the group that it belongs to (often dialout)."),

    LOGIN_WANTED(Reason.LOGIN_REFUSED, Say.LOGIN,
            "It may want a user and a secret: set them in the gear's window."),
    /** %1: the secret's name. */
    LOGIN_WRONG(Reason.LOGIN_REFUSED, Say.LOGIN,
            "Check the user, and replace the secret “%1” in the gear's window."), NO_ACCOUNTS(Reason.LOGIN_REFUSED,
                    "it has no accounts (SASL)",
                    "Choose the password of the server in its settings."),
    /** %1: how long it had. */
    LOGIN_UNANSWERED(Reason.SILENT, "it took the connection, but did not answer the login within %1",
            "It may be busy, or want to be greeted otherwise: look at it, and compare its card with its manual."
                    + Say.AGAIN),
    /** %1: how it answered. */
    GREETING_REFUSED(Reason.LOGIN_REFUSED, "%1",
            "That is how it answered at the start; check the user and the secret."),
    /** %1: the secret's name. */
    SECRET_MISSING(Reason.SECRET_MISSING, "wants the secret “%1”, which is not on this computer",
            "Set it in the gear's window, or with “rombix secrets set %1”."),
    /** %1: the secret's name. */
    SECRET_NOT_ALLOWED(Reason.NOT_PERMITTED, "wants the secret “%1”, which this board was not allowed to tell it",
            "Open the board and trust it, or add “--allow-secret %1”."),

    BROKER_REFUSES(Reason.REFUSED, "the broker refuses the connection",
            "Check what the broker allows, and the user and the secret in the gear's window."),
    /** %1: what it says. */
    TOPICS_REFUSED(Reason.REFUSED, "the broker refuses its topics: %1", "Check what the broker lets this user read."),
    /** %1: what it says, if it says something. */
    NOT_WEBSOCKET(Reason.REFUSED, "something is there, but it doesn't speak WebSocket%1", "Check the port."),
    /** %1: how it answers. */
    NO_WEBSOCKET(Reason.REFUSED, "there is no WebSocket at its address and path (it answers %1)",
            "Check the path among its settings."),
    /** %1: the room; %2: by whom; %3: what was said to it. */
    REMOVED(Reason.REFUSED, "was removed from %1 by %2", "The room says: %3. Rombix asks to be let in again."),
    /** %1: what it says. */
    STILL_SENT(Reason.REFUSED, "refused: %1", "Commands are still sent. Ask the room's operators."),

    /** %1: what is wrong with it. */
    CERTIFICATE_UNREADABLE(Reason.WRONGLY_SET, "the certificate given for it can't be read: %1",
            "Choose the file again in the gear's window; it begins with BEGIN CERTIFICATE."),
    /** %1: its name. */
    OWN_CERTIFICATE_MISSING(Reason.SECRET_MISSING, "wants our own certificate “%1”, which is not on this computer",
            "Choose its file in the gear's window."),
    /** %1: its name; %2: what is wrong with it. */
    OWN_CERTIFICATE_UNUSABLE(Reason.WRONGLY_SET, "our own certificate “%1” cannot be used: %2",
            "Choose its file again in the gear's window."), CLIENT_CERTIFICATE_WANTED(Reason.CERTIFICATE_WANTED,
                    "it asks for a client certificate",
                    "Choose one that it knows, with its key, in the gear's window."), CLIENT_CERTIFICATE_REJECTED(
                            Reason.CERTIFICATE_WANTED, "it rejects our client certificate",
                            "Choose the one that it knows, with its key, in the gear's window."), CERTIFICATE_EXPIRED(
                                    Reason.TLS_UNTRUSTED, "its certificate has expired",
                                    Say.CLOCK), CERTIFICATE_NOT_YET_VALID(Reason.TLS_UNTRUSTED,
                                            "its certificate is not valid yet",
                                            Say.CLOCK), CERTIFICATE_OF_ANOTHER_HOST(Reason.TLS_UNTRUSTED,
                                                    "its certificate is for another host name than in its address",
                                                    "Use the name in the certificate, or trust the one that is seen first."), CERTIFICATE_NOT_THE_ONE_GIVEN(
                                                            Reason.TLS_UNTRUSTED,
                                                            "its certificate is neither the one given here nor signed by it",
                                                            Say.OWN), CERTIFICATE_NOT_SIGNED(Reason.TLS_UNTRUSTED,
                                                                    "its certificate isn't signed by a trusted authority",
                                                                    Say.OWN), CERTIFICATE_CHANGED(Reason.TLS_CHANGED,
                                                                            "its certificate has changed since it was first seen",
                                                                            "If it was renewed, forget the first one in the gear's window. If not, someone may be intercepting the connection."), KNOWN_CERTIFICATES_DAMAGED(
                                                                                    Reason.WRONGLY_SET,
                                                                                    "the list of known certificates on this computer is damaged",
                                                                                    "Compare its certificate, and forget the first one in the gear's window."), TLS_NOT_SPOKEN(
                                                                                            Reason.TLS_NOT_SPOKEN,
                                                                                            "something is there, but it doesn't speak TLS%1",
                                                                                            "Check the port, or turn TLS off."),
    /** %1: what the other end says. */
    TLS_NOT_AGREED(Reason.UNREACHABLE, "TLS was not agreed on: %1", "Check the port, or turn TLS off." + Say.AGAIN),

    /** %1: what. */
    TROUBLE(Reason.TROUBLE, "something went wrong inside Rombix: %1", "Restart Rombix, and report it.");

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
        private static final String CHECK = "Check that it is switched on and that its address is right." + AGAIN;
        private static final String LOGIN = "it does not take this user or password";
        private static final String CLOCK = "Renew it, or check this computer's clock.";
        private static final String OWN = "For gear of your own, give its certificate, or trust the one that is seen first.";
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
