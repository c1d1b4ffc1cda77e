package rombix.standins;

/** Where the stand-ins of the demo listen, where nothing else is said. */
public final class Ports {
    public static final int STUDIO = 9101;
    public static final int SOUND_DESK = 9102;
    public static final int CUES = 9103;
    public static final int LAMPS = 5568;
    public static final int HOUSE = 9104;
    public static final int CHAT = 9105;
    public static final int PADS = 9106;
    public static final int BOOTH = 9107;
    public static final int GAMEPAD = 9108;
    public static final int PROJECTOR = 9109;
    public static final int CAMERA = 9111;
    public static final int MUSIC = 9112;
    public static final int RELAYS = 9113;

    private Ports() {
    }
}
