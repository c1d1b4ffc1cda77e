package rombix.standins.set;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Supplier;
import rombix.standins.CameraHead;
import rombix.standins.Chat;
import rombix.standins.Cues;
import rombix.standins.House;
import rombix.standins.Lamps;
import rombix.standins.Music;
import rombix.standins.Projector;
import rombix.standins.RelayBox;
import rombix.standins.Studio;
import rombix.standins.midi.Pads;
import rombix.standins.midi.SoundDesk;
import rombix.standins.set.Panel.Choice;
import rombix.standins.set.Panel.Control;
import rombix.standins.set.Panel.Level;
import rombix.standins.set.Panel.Press;
import rombix.standins.set.Panel.Said;
import rombix.standins.set.Panel.Seen;
import rombix.standins.set.Panel.Switch;
import rombix.standins.sound.Speakers;

/** The panels of the stand-ins of the demo board. */
public final class Panels {
    private static final int FULL = 127;
    private static final int FIRST_LEVEL = 30;
    private static final int FIRST_MUTE = 20;
    private static final int PADS = 8;
    private static final List<String> CHANNELS = List.of("Host", "Guest", "Dome", "Music Bed", "Stings");

    private Panels() {
    }

    private record Of(String title, Supplier<List<Control>> now, BiConsumer<String, String> hand,
            Supplier<List<String>> lines) implements Panel {
        @Override
        public List<Control> controls() {
            return now.get();
        }

        @Override
        public void work(String id, String to) {
            hand.accept(id, to);
        }

        @Override
        public List<String> recentMessages() {
            return lines.get();
        }
    }

    /** A panel for each, to work it by hand. */
    public static List<Panel> of(StandIns all) {
        return List.of(studio(all.studio()), desk(all.desk()), lamps(all.lamps()), cues(all.cues()), house(all.house()),
                chat(all.chat()), projector(all.projector()), camera(all.camera()), music(all.music()), relays(all
                        .relays()),
                pads(all.pads()), speakers());
    }

    private static boolean yes(String to) {
        return Boolean.parseBoolean(to);
    }

    private static Panel studio(Studio s) {
        return new Of("Studio, OSC", () -> {
            List<Control> all = new ArrayList<>(List.of(new Choice("scene", "Scene", s.scene(), Studio.SCENES),
                    new Switch("stream", "Stream", s.streaming(), "ON AIR", "off air"), new Switch("record", "Record", s
                            .recording(), "RECORDING", "not recording")));
            Studio.LAYERS.forEach((id, name) -> all.add(new Switch("layer/" + id, name, s.shown(id), "SHOWN",
                    "hidden")));
            all.add(new Seen("clips", "Clips kept", String.valueOf(s.clips()), ""));
            return all;
        }, (id, to) -> s.work(id, id.equals("scene") ? to : yes(to)), s.received()::lines);
    }

    private static Panel desk(SoundDesk d) {
        return new Of("Sound desk, MIDI", () -> {
            List<Control> all = new ArrayList<>();
            for (int i = 0; i < SoundDesk.CHANNELS; i++) {
                all.add(new Switch("mute " + i, CHANNELS.get(i), d.muted(i), "MUTED", "OPEN"));
                all.add(new Level("level " + i, "", d.level(i), 0, FULL, ""));
            }
            all.add(new Seen("stings", "Stings played", String.valueOf(d.played().size()), ""));
            return all;
        }, (id, to) -> {
            int channel = Integer.parseInt(id.substring(id.indexOf(' ') + 1));
            if (id.startsWith("mute")) {
                d.work(FIRST_MUTE + channel, yes(to) ? FULL : 0);
            } else {
                d.work(FIRST_LEVEL + channel, (int) Math.round(Double.parseDouble(to)));
            }
        }, d.received()::lines);
    }

    private static Panel lamps(Lamps l) {
        return new Of("Lamps, sACN and Art-Net", () -> {
            List<Control> all = new ArrayList<>();
            for (Lamps.Fixture f : Lamps.FIXTURES) {
                int level = l.slot(f.level());
                String colour = f.colour() == 0
                        ? "#%02X%02X%02X".formatted(level, level, level)
                        : "#%02X%02X%02X".formatted(l.slot(f.colour()), l.slot(f.colour() + 1), l.slot(f.colour() + 2));
                all.add(new Seen(f.name(), f.name(), Math.round(level / 2.55) + " %", colour));
            }
            StringBuilder others = new StringBuilder();
            for (int slot = 1; slot <= 512; slot++) {
                int at = slot;
                if (l.slot(slot) > 0 && Lamps.FIXTURES.stream().noneMatch(f -> at == f.level() || at == f.warmth() || f
                        .colour() > 0 && at >= f.colour() && at < f.colour() + 3)) {
                    others.append(slot).append('=').append(l.slot(slot)).append(' ');
                }
            }
            all.add(new Seen("others", "Other slots", others.isEmpty() ? "dark" : others.toString().strip(), ""));
            return all;
        }, (_, _) -> {
            // Lamps say nothing of themselves.
        }, () -> List.of(l.packets() + " packets with levels"));
    }

    private static Panel cues(Cues c) {
        Map<String, String> lists = new LinkedHashMap<>();
        lists.put("house-lights", "House lights");
        lists.put("dome-walk", "Dome walk");
        return new Of("Lamp cues, OSC", () -> {
            List<Control> all = new ArrayList<>();
            lists.forEach((id, name) -> {
                all.add(new Seen(id, name, c.cue(id) == 0 ? "released" : "cue " + c.cue(id), ""));
                all.add(new Press("go " + id, "Go"));
                all.add(new Press("back " + id, "Back"));
                all.add(new Press("release " + id, "Release"));
            });
            return all;
        }, (id, _) -> c.work(id.substring(id.indexOf(' ') + 1), id.substring(0, id.indexOf(' '))), c.received()::lines);
    }

    private static Panel house(House h) {
        return new Of("House, MQTT", () -> {
            List<Control> all = new ArrayList<>();
            for (String lock : List.of("dome-door", "gate")) {
                all.add(new Switch("house/lock/" + lock, lock.equals("gate") ? "Gate" : "Dome door", h.state(
                        "house/lock/" + lock).orElse("").equals("LOCKED"), "LOCKED", "OPEN"));
            }
            Map<String, String> plugs = new LinkedHashMap<>();
            plugs.put("house/plug/dew-heaters", "Dew heaters");
            plugs.put("house/plug/extractor-fan", "Extractor fan");
            plugs.put("house/plug/tea-urn", "Tea urn");
            plugs.put("house/booth/camera", "Gate camera");
            plugs.put("house/music/playing", "Music");
            plugs.forEach((topic, name) -> all.add(new Switch(topic, name, h.state(topic).orElse("").equals("ON"), "ON",
                    "off")));
            all.add(new Level("house/heater/temperature", "Warm room", number(h.state("house/heater/temperature")
                    .orElse("0")), 0, 30, "°C"));
            all.add(new Level("house/music/volume", "Volume", number(h.state("house/music/volume").orElse("0")), 0, 100,
                    "%"));
            return all;
        }, (id, to) -> h.becomes(id, id.startsWith("house/lock")
                ? yes(to) ? "LOCKED" : "UNLOCKED"
                : to.matches("true|false") ? yes(to) ? "ON" : "OFF" : to), h.received()::lines);
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            return 0;
        }
    }

    private static Panel chat(Chat c) {
        return new Of("Chat, IRC", () -> List.of(new Switch("M", "Members only", c.has('M'), "MEMBERS", "all"),
                new Switch("m", "Slow", c.has('m'), "SLOW", "free"), new Said("say", "A guest writes")), (id, to) -> {
                    if (id.equals("say")) {
                        c.say(to);
                    } else {
                        c.mode(id.charAt(0), yes(to));
                    }
                }, c.received()::lines);
    }

    private static Panel projector(Projector p) {
        Map<String, String> inputs = new LinkedHashMap<>();
        List.of("SKY", "DECK", "TRAILER").forEach(i -> inputs.put(i, i));
        return new Of("Dome projector, text lines", () -> List.of(new Seen("power", "Lamp", p.power(), ""), new Switch(
                "POWER", "Power", p.power().matches("ON|WARMING"), "ON", "off"),
                new Choice("INPUT", "Input", p.input(),
                        inputs),
                new Switch("SHUTTER", "Shutter", p.shutter(), "SHUT", "OPEN")),
                (id, to) -> p.work(id
                        + " " + switch (id) {
                            case "POWER" -> yes(to) ? "ON" : "OFF";
                            case "SHUTTER" -> yes(to) ? "SHUT" : "OPEN";
                            default -> to;
                        }),
                p.received()::lines);
    }

    private static Panel camera(CameraHead c) {
        return new Of("Gate camera head, HTTP", () -> List.of(new Choice("preset", "Preset", c.preset(),
                CameraHead.NAMES), new Level("pan", "Pan", c.pan(), -170, 170, "°"),
                new Level("tilt", "Tilt", c.tilt(),
                        -30, 90, "°"),
                new Level("zoom", "Zoom", c.zoom(), 1, 12, "×"), new Switch("tracking",
                        "Tracking", c.tracking(), "TRACKING", "off")),
                (id, to) -> {
                    switch (id) {
                        case "preset" -> c.work("POST", "/presets/" + to + "/recall", "");
                        case "tracking" -> c.work("PUT", "/tracking", "{\"on\": " + yes(to) + "}");
                        case "zoom" -> c.work("PUT", "/zoom", "{\"zoom\": " + to + "}");
                        default -> c.work("PUT", "/position", "{\"" + id + "\": " + to + "}");
                    }
                }, c.received()::lines);
    }

    private static Panel music(Music m) {
        return new Of("Warm room music, WebSocket", () -> List.of(new Switch("play", "Music", m.playing(), "PLAYING",
                "stopped"), new Choice("playlist", "Playlist", m.playlist(), Music.PLAYLISTS),
                new Switch("shuffle",
                        "Shuffle", m.shuffle(), "ON", "off"),
                new Level("volume", "Volume", m.volume() * 100, 0, 100,
                        "%")),
                (id, to) -> m.work(id, id.equals("volume")
                        ? String.valueOf(Double.parseDouble(to) / 100)
                        : to),
                m.received()::lines);
    }

    private static Panel relays(RelayBox r) {
        return new Of("Relay box, serial", () -> {
            List<Control> all = new ArrayList<>();
            for (int i = 1; i <= 4; i++) {
                all.add(new Switch(String.valueOf(i), "Relay " + i, r.on(i), "ON", "off"));
            }
            return all;
        }, (id, to) -> r.turn(Integer.parseInt(id), yes(to)), r.received()::lines);
    }

    private static Panel pads(Pads p) {
        int[] fader = {0};
        return new Of("Pads, a MIDI controller", () -> {
            List<Control> all = new ArrayList<>();
            for (int i = 0; i < PADS; i++) {
                all.add(new Press(String.valueOf(i), "Pad " + (i + 1)));
            }
            all.add(new Level("fader", "Fader", fader[0], 0, FULL, ""));
            return all;
        }, (id, to) -> {
            if (id.equals("fader")) {
                fader[0] = (int) Math.round(Double.parseDouble(to));
                p.play(0xB0, 7, fader[0]);
            } else {
                int note = Pads.FIRST_PAD + Integer.parseInt(id);
                p.play(0x90, note, FULL);
                p.play(0x80, note, 0);
            }
        }, p.received()::lines);
    }

    private static Panel speakers() {
        return new Of("Loudspeakers, sound", () -> {
            List<Control> all = new ArrayList<>();
            for (String name : List.of(Speakers.HOUSE, Speakers.HEADPHONES)) {
                all.add(new Seen(name, name.replace("Larkmoor ", ""), Speakers.of(name).sounds() ? "SOUNDS" : "silent",
                        ""));
            }
            return all;
        }, (_, _) -> {
            // A loudspeaker is not worked.
        }, List::of);
    }
}
