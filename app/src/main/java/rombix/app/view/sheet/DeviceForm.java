package rombix.app.view.sheet;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.layout.VBox;
import rombix.app.view.common.Desk;
import rombix.app.view.common.Space;
import rombix.app.view.form.Fields;
import rombix.core.board.Page;
import rombix.web.access.Access;
import rombix.web.access.Right;

/** What one device or program is called and may do. */
final class DeviceForm {
    private final Desk desk;
    private final Access access;
    private final Consumer<Access> changed;
    private final Runnable removed;

    DeviceForm(Desk desk, Access access, Consumer<Access> changed, Runnable removed) {
        this.desk = desk;
        this.access = access;
        this.changed = changed;
        this.removed = removed;
    }

    List<Node> parts() {
        Button remove = Fields.plain(access.kind() == Access.Kind.DEVICE ? "Remove this device" : "Revoke this token",
                "");
        remove.setId("device-remove");
        remove.setOnAction(_ -> removed.run());
        if (access.kind() == Access.Kind.HOOK) {
            return List.of(Fields.heading("/hook/" + access.name()), remove);
        }
        return List.of(Fields.heading(access.name()), Fields.named("Name", Fields.text("device-name", access.name(),
                name -> {
                    if (!name.isBlank()) {
                        changed.accept(access.with(name.strip().substring(0, Math.min(name.strip().length(),
                                Access.MAX_NAME)), access.pages(), access.rights()));
                    }
                })), rights(access.kind(), access.rights(), r -> changed.accept(access.with(access.name(), access
                        .pages(), r))),
                pages(desk, access.pages(), p -> changed.accept(access.with(access.name(), p,
                        access.rights()))),
                remove);
    }

    /** Which rights; what is chosen is told each time. */
    static VBox rights(Access.Kind kind, Set<Right> now, Consumer<Set<Right>> told) {
        Set<Right> chosen = now.isEmpty() ? EnumSet.noneOf(Right.class) : EnumSet.copyOf(now);
        VBox box = new VBox(Space.S6, Fields.heading("Allowed to"));
        for (Right right : kind == Access.Kind.DEVICE
                ? List.of(Right.PRESS, Right.STOP_ALL)
                : List.of(Right
                        .values())) {
            String words = switch (right) {
                case PRESS -> "Press buttons";
                case STOP_ALL -> "Stop all chains";
                case LOG -> "Read the log";
            };
            box.getChildren().add(Fields.check("right-" + right.name().toLowerCase(java.util.Locale.ROOT), words, chosen
                    .contains(right), on -> {
                        if (on) {
                            chosen.add(right);
                        } else {
                            chosen.remove(right);
                        }
                        told.accept(Set.copyOf(chosen));
                    }));
        }
        return box;
    }

    /** Which pages; none ticked beside all means all. */
    static VBox pages(Desk desk, Set<String> now, Consumer<Set<String>> told) {
        Set<String> chosen = new LinkedHashSet<>(now);
        VBox list = new VBox(Space.S6);
        List<CheckBox> each = new ArrayList<>();
        CheckBox all = Fields.check("pages-all", "All pages", chosen.isEmpty(), on -> {
            chosen.clear();
            each.forEach(c -> c.setSelected(false));
            told.accept(Set.of());
        });
        list.getChildren().add(all);
        for (Page page : desk.bench().board().pages()) {
            CheckBox box = Fields.check("page-of-device-" + page.id(), page.name(), chosen.contains(page.id()), on -> {
                if (on) {
                    chosen.add(page.id());
                } else {
                    chosen.remove(page.id());
                }
                all.setSelected(chosen.isEmpty());
                told.accept(Set.copyOf(chosen));
            });
            each.add(box);
            list.getChildren().add(box);
        }
        return new VBox(Space.S6, Fields.heading("Pages"), list);
    }
}
