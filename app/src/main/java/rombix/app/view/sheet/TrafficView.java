package rombix.app.view.sheet;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TableColumn;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.Clipboard;
import javafx.scene.input.DataFormat;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;
import rombix.app.view.common.Desk;
import rombix.app.view.form.Fields;
import rombix.core.board.Gear;
import rombix.core.store.WholeFile;
import rombix.core.thread.OwnedBy;
import rombix.core.thread.OwnedBy.Owner;
import rombix.core.traffic.PacketWords;
import rombix.core.traffic.Traffic;
import rombix.core.traffic.TrafficPacket;
import rombix.core.traffic.TrafficPacket.Fate;
import rombix.core.traffic.TrafficPacket.Way;
import rombix.core.twin.Figures;
import rombix.core.twin.Order;

/**
 * Packets sent and received, in words and as raw data, with their results: followed or
 * held, narrowed to a gear, to failures or to words, copied, saved, sent again. The interface's thread's.
 */
@OwnedBy(Owner.INTERFACE)
public final class TrafficView {
    private static final double WIDTH = 1120;
    private static final double HEIGHT = 620;
    private static final int MOST_SHOWN = 1000;
    private static final String ALL_GEAR = "";

    private final Desk desk;
    private final Supplier<Traffic> traffic;
    private final Consumer<String> notice;
    private final FollowedTable<TrafficPacket, Predicate<TrafficPacket>> rows;
    private final Button again = Fields.plain("Send again", "");
    private final Button copy = Fields.plain("Copy", "");
    private final TableColumn<TrafficPacket, String> which = Fields.column("Gear", 130, p -> spoken().gear(p));
    private String gear = ALL_GEAR;
    private long seen = -1;
    private List<TrafficPacket> all = List.of();

    /** @param notice told in words of what could not be done */
    public TrafficView(Desk desk, Supplier<Traffic> traffic, Consumer<String> notice) {
        this.desk = desk;
        this.traffic = traffic;
        this.notice = notice;
        rows = new FollowedTable<>("traffic", desk, this::fill, 250, () -> look(false));
        rows.columns("No packets match.", p -> !p.fate().well()
                ? "fault-row"
                : p.way() == Way.OUT ? "press-row" : "plain-row", List.of(
                        Fields.<TrafficPacket>column("Time", 116,
                                PacketWords::time),
                        Fields.<TrafficPacket>column("", 60, p -> p.way() == Way.OUT ? "out →" : "← in"), which,
                        Fields.<TrafficPacket>column("Message", 250, p -> spoken().words(p)),
                        Fields.<TrafficPacket>column("Data", 320, PacketWords::shown),
                        Fields.<TrafficPacket>column("Result", 220, TrafficPacket::result)));
        rows.table().getSelectionModel().selectedItemProperty().addListener((_, _, p) -> {
            rows.detail().setText(p == null ? "" : p.raw().isEmpty() ? p.result() : p.raw());
            copy.setDisable(p == null);
            again.setDisable(p == null || p.order() == null);
        });
        rows.detail().setWrapText(true);
        rows.detail().setMaxHeight(80);
        rows.search("Search texts, addresses, values", "Search the traffic");
        again.setId("traffic-again");
        again.setTooltip(new Tooltip("Sends the same command to the same gear now"));
        again.setOnAction(_ -> again(rows.selected()));
        copy.setId("traffic-copy");
        copy.setOnAction(_ -> copy(rows.selected()));
    }

    private PacketWords spoken() {
        return new PacketWords(desk.bench().rig(), desk.model().state()::readings);
    }

    /** @param of the gear whose packets alone are shown; null for all */
    public void open(Node by, @Nullable String of) {
        open(by, of, false);
    }

    /** @param failed whether what failed or was ignored is shown first */
    public void open(Node by, @Nullable String of, boolean failed) {
        gear = of == null ? ALL_GEAR : of;
        which.setVisible(true);
        ToggleButton every = kind("all", _ -> true);
        ToggleButton lost = kind("failed or ignored", p -> !p.fate().well());
        look(true);
        rows.open(by, WIDTH, HEIGHT, failed ? lost : every, List.of(gears(), every, kind("commands", p -> p
                .order() != null), kind("out", p -> p.way() == Way.OUT), kind("in", p -> p.way() == Way.IN), lost), List
                        .of(again, copy),
                List.of(save()));
    }

    /** The packets of one gear, as a part of another sheet; they are followed until {@link #end}. */
    public Node inside(String of) {
        gear = of;
        which.setVisible(false);
        ToggleButton every = kind("all", _ -> true);
        look(true);
        return rows.inside(every, List.of(every, kind("commands", p -> p.order() != null), kind("failed or ignored",
                p -> !p.fate().well())), List.of(again, copy), List.of(save()));
    }

    /** Ends what {@link #inside} began. */
    public void end() {
        rows.end();
    }

    private Button save() {
        Button save = Fields.plain("Save…", "");
        save.setId("traffic-save");
        save.setOnAction(_ -> choose());
        return save;
    }

    private ToggleButton kind(String text, Predicate<TrafficPacket> test) {
        return rows.kind(text, test, () -> {
        });
    }

    private ComboBox<String> gears() {
        List<String> ids = new ArrayList<>(List.of(ALL_GEAR));
        desk.bench().board().gear().forEach(g -> ids.add(g.id()));
        return Fields.choice("traffic-gear", ids, ids.contains(gear) ? gear : ALL_GEAR, id -> id.equals(ALL_GEAR)
                ? "all gear"
                : desk.bench().board().gear().stream().filter(g -> g.id().equals(id)).findFirst().map(Gear::name)
                        .orElse(id),
                id -> {
                    gear = id;
                    fill();
                });
    }

    private void look(boolean whole) {
        Traffic.Look look = traffic.get().look(whole ? -1 : seen);
        if (look != null) {
            seen = look.changes();
            all = look.packets();
            fill();
        }
    }

    /** Shows what is asked for, newest first. */
    private void fill() {
        Predicate<TrafficPacket> test = rows.kind(_ -> true);
        String sought = rows.words().getText().strip().toLowerCase(Locale.ROOT);
        PacketWords spoken = spoken();
        List<TrafficPacket> from = all;
        if (!gear.equals(ALL_GEAR) && all.stream().noneMatch(p -> p.gear().equals(gear) && p.fate() == Fate.IGNORED)) {
            from = new ArrayList<>(traffic.get().ignoredOf(gear)); // Kept for longer than all the rest.
            from.addAll(all);
        }
        List<TrafficPacket> matching = from.stream()
                .filter(p -> (gear.equals(ALL_GEAR) || p.gear().equals(gear)) && test
                        .test(p) && (sought.isEmpty() || spoken.line(p).toLowerCase(Locale.ROOT).contains(sought)))
                .toList();
        List<TrafficPacket> shown = matching.subList(Math.max(0, matching.size() - MOST_SHOWN), matching.size())
                .reversed();
        rows.fill(shown, TrafficPacket::number);
        rows.summary().setText(
                matching.size() > MOST_SHOWN ? "the newest " + MOST_SHOWN : Figures.count(matching.size(), "packet"));
    }

    private void again(@Nullable TrafficPacket packet) {
        Order order = packet == null ? null : packet.order();
        if (order != null) {
            desk.tell(order.gear(), order.command().id(), order.args());
        }
    }

    private void copy(@Nullable TrafficPacket packet) {
        if (packet != null) {
            Clipboard.getSystemClipboard().setContent(Map.of(DataFormat.PLAIN_TEXT, spoken().line(packet)));
            rows.summary().setText("copied");
        }
    }

    private void choose() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Save the traffic as text");
        chooser.setInitialFileName("traffic.txt");
        File file = chooser.showSaveDialog(rows.table().getScene().getWindow());
        if (file != null) {
            write(file.toPath());
        }
    }

    /** Writes what is shown, oldest first, a packet in a line. */
    public void write(Path file) {
        PacketWords spoken = spoken();
        List<String> lines = rows.table().getItems().reversed().stream().map(spoken::line).toList();
        try {
            WholeFile.write(file, String.join("\n", lines) + "\n", WholeFile.Readers.AS_BEFORE);
            rows.summary().setText(Figures.count(lines.size(), "packet") + " saved to " + file.getFileName());
        } catch (IOException e) {
            notice.accept("Can't save the traffic: " + e.getMessage());
        }
    }
}
