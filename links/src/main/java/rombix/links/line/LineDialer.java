package rombix.links.line;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import rombix.links.link.GearPlaces;
import rombix.links.link.HostPort;
import rombix.links.link.Target;
import rombix.links.talk.Talk;
import rombix.links.talk.Wire;

/** Opens the way to a gear that speaks in lines, as is set for it. */
final class LineDialer implements Talk.Dialer {
    private static final int CONNECT_MILLIS = 3000;
    private static final int LOOK_MILLIS = 100;
    private static final long KEPT_MILLIS = 400;

    private final Target target;
    private final GearPlaces places;
    private final LineForm form;

    LineDialer(Target target, GearPlaces places) {
        this.target = target;
        this.places = places;
        this.form = new LineForm(places);
        form.framing(); // What cannot be is told at once.
        if (target.address().isBlank()) {
            throw new IllegalArgumentException("no address yet");
        }
        if (target.address().contains(":")) {
            target.hostPort(); // One that makes no sense is told at once.
        }
    }

    @Override
    public Wire dial() throws IOException {
        target.secret(); // Where it is missing nobody is bothered.
        if (!target.address().contains(":")) {
            return new SerialWire(target.address(), places, form);
        }
        if (places.text(Line.TRANSPORT).equals(Line.UDP)) {
            InetSocketAddress to = HostPort.resolved(target.hostPort());
            return new DatagramWire(to, form);
        }
        Socket socket = target.connect(CONNECT_MILLIS);
        socket.setSoTimeout(form.framing().lookMillis(LOOK_MILLIS));
        socket.setKeepAlive(true);
        return new StreamWire(socket.getInputStream(), socket.getOutputStream(), form, () -> {
            try {
                socket.close();
            } catch (IOException e) {
                // It is gone either way.
            }
        });
    }

    @Override
    public long keptMillis() {
        return places.text(Line.KEPT).equals(Line.EACH) ? KEPT_MILLIS : 0;
    }
}
