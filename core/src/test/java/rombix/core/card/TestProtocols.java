package rombix.core.card;

import org.jspecify.annotations.Nullable;
import rombix.core.card.Protocol.Reach;
import rombix.core.computer.Power;

/** Stands for what the links bring, of which the core's tests have none: as much of it as boards and cards need. */
public abstract class TestProtocols implements Protocol.Descriptor {
    private final String id;
    private final String form;
    private final int rate;
    private final Reach reach;
    private final String preset;

    TestProtocols(String id, String form, int rate, Reach reach, String preset) {
        this.id = id;
        this.form = form;
        this.rate = rate;
        this.reach = reach;
        this.preset = preset;
    }

    @Override
    public String id() {
        return id;
    }

    @Override
    public String title() {
        return id.toUpperCase(java.util.Locale.ROOT);
    }

    @Override
    public boolean takes(String address) {
        return address.matches(form);
    }

    @Override
    public String expected() {
        return form;
    }

    @Override
    public int rate() {
        return rate;
    }

    @Override
    public Reach reach() {
        return reach;
    }

    @Override
    public boolean textual() {
        return java.util.Set.of("mqtt", "http", "websocket", "line", "irc").contains(id);
    }

    @Override
    public String presetAddress() {
        return preset;
    }

    public static final class Osc extends TestProtocols {
        public Osc() {
            super("osc", "(/|\\{[^{}]+})[^ #*,?\\[\\]]*", 50, Reach.NETWORK, "");
        }
    }

    public static final class Midi extends TestProtocols {
        public Midi() {
            super("midi",
                    "(control|note|control14|rpn|nrpn|mmc) \\S+ \\S+|msc \\S+ \\S+ \\S+|(program|bend|pressure) \\S+|sysex|clock|time|start|continue|stop",
                    50, Reach.PORT, "");
        }
    }

    public static final class Dmx extends TestProtocols {
        public Dmx() {
            super("dmx", "\\S+ \\S+|master", 44, Reach.NETWORK, "multicast");
        }
    }

    public static final class Mqtt extends TestProtocols {
        public Mqtt() {
            super("mqtt", "[^#+]+", 10, Reach.NETWORK, "");
        }

        @Override
        public boolean topics() {
            return true;
        }
    }

    public static final class Irc extends TestProtocols {
        public Irc() {
            super("irc", "[A-Z]+( \\S+)*", 2, Reach.NETWORK, "");
        }
    }

    public static final class Sound extends TestProtocols {
        public Sound() {
            super("sound", "(play|stop|level|playing|left) \\S+|stop|level|outputs", 50, Reach.PORT, "");
        }
    }

    public static final class Desktop extends TestProtocols {
        public Desktop() {
            super("desktop", "[a-z]+( [a-z]+| \\{[a-z-]+})?|(held|seen|volume|mute|sound-volume|sound-mute)/.*", 10,
                    Reach.HERE, "here");
        }

        @Override
        public @Nullable Power power(String address) {
            return Power.of(address.substring(0, Math.max(0, address.indexOf(' ')))).orElse(null);
        }

        @Override
        public boolean askedInFull(String address) {
            return address.matches("programs .*|files .*|keys secret|screen save");
        }
    }

    public static final class Http extends TestProtocols {
        public Http() {
            super("http", "(\\S+ )?(/|\\{[^{} ]+})\\S*|[a-z][a-z0-9-]*", 10, Reach.NETWORK, "");
        }

        @Override
        public String inAddress(String text) {
            return text.replace(" ", "%20");
        }
    }

    public static final class WebSocket extends TestProtocols {
        public WebSocket() {
            super("websocket", "[a-z][a-z0-9-]*", 20, Reach.NETWORK, "");
        }
    }

    public static final class Line extends TestProtocols {
        public Line() {
            super("line", "[a-z][a-z0-9-]*", 20, Reach.NETWORK, "");
        }
    }

    public static final class ArtNet extends TestProtocols {
        public ArtNet() {
            super("artnet", "\\S+ \\S+|master", 44, Reach.NETWORK, "");
        }
    }
}
