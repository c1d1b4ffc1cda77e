package rombix.app.view.tile;

import javafx.geometry.Rectangle2D;
import javafx.scene.control.Label;
import javafx.scene.shape.Polygon;
import org.kordamp.ikonli.javafx.FontIcon;
import rombix.app.view.common.Styles;
import rombix.core.board.Control;
import rombix.core.board.Face;
import rombix.core.board.Face.Image.Fit;

/** Where the parts of a tile stand, and how large they are, at any size of the tile. */
final class TileLayout {
    static final double CUT = 14;
    private static final double FRAME = 2.5;
    private static final double MARK = 14;
    private static final double MIN_DIAL = 36;
    /** Parts of the tile's height. */
    private static final double SMALL_ICON = 0.24;
    private static final double LARGE_ICON = 0.4;
    private static final double LARGEST_ICON = 96;
    /** Between an icon and what stands under it; an icon grows only where it leaves its label more than that. */
    private static final double UNDER_ICON = 2;
    private static final double AIR = 10;

    private final TileParts p;
    /** The size for which the outline was made. */
    private double[] outlined = new double[2];
    private String inkStyle = "";
    private String fittedFor = "";
    private double fitted = LabelSize.MIN;
    private double runDone = -1;
    private String roomyFor = "";
    private double roomyIcon;
    private Face face = Face.PLAIN;

    TileLayout(TileParts parts) {
        this.p = parts;
    }

    /** What is laid out from now on: a face, and the style of its words' colour. */
    void show(Face next, String ink) {
        face = next;
        inkStyle = ink;
    }

    /** How far a chain is, from 0 to 1; less than 0 where none runs. */
    void run(double done, double width) {
        runDone = done;
        bar(width);
    }

    private void bar(double width) {
        p.bar.setWidth(Math.max(0, (width - CUT) * Math.max(0, runDone)));
    }

    void lay(double w, double h) {
        if (w != outlined[0] || h != outlined[1]) {
            outlined = new double[]{w, h};
            outline(w, h);
        }
        p.bar.setHeight(4);
        bar(w);
        double pad = Math.clamp(h * 0.09, 6, 14);
        double small = Math.clamp(Math.min(h * 0.125, w * 0.15), 11, 20);
        for (Label l : new Label[]{p.tally, p.fault}) {
            Styles.size(l, small, "");
        }
        Styles.size(p.left, small * 1.15, "");
        double iconSize = iconSize(w, h, pad);
        double tallyWidth = p.tally.prefWidth(-1);
        boolean crowded = !p.tally.getText().isEmpty() && w - CUT - 4 - tallyWidth < pad + iconSize + UNDER_ICON;
        double top = crowded ? pad + small + 4 : pad; // In a narrow tile the icon is below its lamp.
        double x = pad;
        FontIcon icon = p.icon();
        if (icon != null) {
            p.iconSize(iconSize);
            icon.relocate(pad, top);
            x = pad + iconSize + 6;
        }
        if (p.art.getImage() != null && art(w, h, pad, top, iconSize)) {
            x = pad + iconSize + 6;
        }
        p.left.resizeRelocate(x, top + (iconSize - p.left.prefHeight(-1)) / 2, p.left.prefWidth(-1),
                p.left.prefHeight(-1));
        p.tally.resizeRelocate(w - CUT - 4 - tallyWidth, pad - 2, tallyWidth, p.tally.prefHeight(-1));
        double pipsWidth = p.pips.prefWidth(-1);
        double pipsHeight = p.pips.prefHeight(-1);
        p.pips.resizeRelocate(w - pad - pipsWidth, h - pad - pipsHeight, pipsWidth, pipsHeight);
        double faultWidth = p.fault.prefWidth(-1);
        p.fault.resizeRelocate(w - pad - faultWidth, h - pad - pipsHeight - (pipsHeight > 0 ? 4 : 0)
                - p.fault.prefHeight(-1), faultWidth, p.fault.prefHeight(-1));
        if (!p.mark.getContent().isEmpty()) {
            boolean under = !p.tally.getText().isEmpty();
            p.mark.relocate(w - pad - MARK - (under ? 0 : CUT - 6), pad + (under ? p.tally.prefHeight(-1) + 1 : 0));
        }
        double head = x > pad ? top + iconSize + UNDER_ICON : pad;
        ControlLook look = p.levels.look();
        if (p.row != null) {
            row(p.row, w, h, pad);
        } else if (look == null) {
            words(w, h, labelSize(w, h), pad, head);
        } else {
            control(look, w, h, pad, top + iconSize, small);
        }
    }

    /** How large the icon is: to be known from two metres it grows as far as the label leaves it room. */
    private double iconSize(double w, double h, double pad) {
        double min = Math.clamp(Math.min(h * SMALL_ICON, w * 0.3), 18, 48);
        if (p.levels.look() != null || p.icon() == null && p.art.getImage() == null) {
            return min;
        }
        double size = labelSize(w, h);
        double wide = wordsWidth(w, pad);
        double reach = p.tally.getText().isEmpty() ? w : w - CUT - 10 - p.tally.prefWidth(-1);
        String roomy = p.label.getText() + "\n" + w + " " + h + " " + wide + " " + reach;
        if (!roomy.equals(roomyFor)) {
            roomyFor = roomy;
            double at = fitting(size, wide, h, pad, pad + min + UNDER_ICON);
            roomyIcon = min;
            for (double part = LARGE_ICON; part > SMALL_ICON && roomyIcon == min; part -= 0.02) {
                double icon = Math.rint(h * part);
                if (icon <= LARGEST_ICON && icon > min && pad + icon <= reach
                        && fitting(size, wide, h, pad, pad + icon + AIR) >= at) {
                    roomyIcon = icon;
                }
            }
        }
        return roomyIcon;
    }

    private double wordsWidth(double w, double pad) {
        double pips = p.pips.prefWidth(-1);
        return w - 2 * pad - (pips > 0 ? pips + 4 : 0);
    }

    /** The size at which the label fits under what stands at the top. */
    private double fitting(double size, double width, double h, double pad, double top) {
        return LabelSize.fitting(p.label.getText(), size, width, h - pad - top - (p.second.getText().isEmpty()
                ? 0
                : size));
    }

    /** Lays a row out: its name above its states. */
    private void row(StatesLook shown, double w, double h, double pad) {
        double size = Math.min(labelSize(w, h), 18);
        double head = pad + size * 1.3;
        words(w, head + pad / 2, size, pad, 0);
        shown.resizeRelocate(pad, head + 4, w - 2 * pad, Math.max(20, h - head - 4 - pad));
    }

    /** Lays a dial, a fader or a pad out: its level at the top, its name at the foot. */
    private void control(ControlLook shown, double w, double h, double pad, double iconEnd, double small) {
        boolean tallied = !p.tally.getText().isEmpty();
        Label level = p.levels.label();
        double size = labelSize(w, h);
        double foot = size * 1.25 + pad;
        Styles.size(level, Math.clamp(Math.min(h * 0.13, w * 0.11), LabelSize.MIN, 24), inkStyle);
        double width = level.prefWidth(-1);
        double height = level.prefHeight(-1);
        shown.along(w > h);
        if (shown.control() instanceof Control.Dial) {
            double head = pad + (tallied ? small + 4 : 0);
            double side = Math.max(MIN_DIAL, Math.min(w * 0.44, h - head - foot));
            shown.resizeRelocate(w - pad - side, head, side, side);
            level.resizeRelocate(w - pad - side + (side - width) / 2, head + (side - height) / 2, width, height);
            words(w, h, size, pad, h - foot);
            return;
        }
        double under = tallied ? pad + small + 4 : (pad + iconEnd - height) / 2;
        level.resizeRelocate(Math.max(pad, w - pad - (tallied ? 0 : CUT - 6) - width), under, width, height);
        boolean bare = p.icon() == null && p.art.getImage() == null && !tallied && level.getText().isEmpty();
        double top = bare ? pad : Math.max(iconEnd, under + height) + 4;
        shown.resizeRelocate(pad, top, w - 2 * pad, Math.max(24, h - foot - top - 2));
        words(w, h, size, pad, h - foot);
    }

    private void outline(double w, double h) {
        p.body.getPoints().setAll(0.0, 0.0, w - CUT, 0.0, w, CUT, w, h, 0.0, h);
        double in = FRAME / 2;
        p.frame.getPoints().setAll(in, in, w - CUT - in / 2, in, w - in, CUT + in / 2, w - in, h - in, in, h - in);
        p.focusLine.getPoints().setAll(4.0, 4.0, w - CUT - 2, 4.0, w - 4, CUT + 2, w - 4, h - 4, 4.0, h - 4);
        double n = Math.clamp(h * 0.14, 10, 20);
        p.notch.getPoints().setAll(0.0, h - n, n, h, 0.0, h);
    }

    /** Lays the picture out; whether it stands where an icon would. */
    private boolean art(double w, double h, double pad, double top, double iconSize) {
        Face.Image image = face.image();
        if (image == null) {
            return false;
        }
        double free = Math.min(w, h) * image.padding() / 100;
        p.art.setClip(null);
        if (image.fit() == Fit.ICON) {
            p.art.setViewport(null);
            p.art.setFitWidth(Math.max(4, iconSize - free / 2));
            p.art.setFitHeight(Math.max(4, iconSize - free / 2));
            p.art.relocate(pad, top);
            return true;
        }
        double width = Math.max(4, w - 2 * free);
        double height = Math.max(4, h - 2 * free);
        double iw = p.art.getImage().getWidth();
        double ih = p.art.getImage().getHeight();
        if (image.fit() == Fit.COVER) {
            double scale = Math.max(width / iw, height / ih);
            p.art.setViewport(new Rectangle2D((iw - width / scale) / 2, (ih - height / scale) / 2, width / scale, height
                    / scale));
        } else {
            p.art.setViewport(null);
        }
        p.art.setFitWidth(width);
        p.art.setFitHeight(height);
        double shownWidth = p.art.getLayoutBounds().getWidth();
        double shownHeight = p.art.getLayoutBounds().getHeight();
        double x = (w - shownWidth) / 2;
        double y = (h - shownHeight) / 2;
        p.art.relocate(x, y);
        Polygon cut = new Polygon(0, 0, w - CUT, 0, w, CUT, w, h, 0, h);
        cut.setTranslateX(-x);
        cut.setTranslateY(-y);
        p.art.setClip(cut);
        return false;
    }

    /** How large a label is at most. */
    private static double labelSize(double w, double h) {
        return Math.clamp(Math.min(h * 0.155, w * 0.135), LabelSize.MIN, 30);
    }

    /** Sets the label as large as it can be in at most three lines, and the second line under it. */
    private void words(double w, double h, double size, double pad, double top) {
        double width = wordsWidth(w, pad);
        boolean two = !p.second.getText().isEmpty();
        String fitting = p.label.getText() + "\n" + size + " " + width + " " + (h - top) + two;
        if (!fitting.equals(fittedFor)) {
            fittedFor = fitting;
            fitted = fitting(size, width, h, pad, top);
        }
        Styles.size(p.label, fitted, inkStyle);
        double under = 0;
        if (two) {
            Styles.size(p.second, Math.max(LabelSize.MIN, fitted * 0.8), inkStyle);
            under = p.second.prefHeight(-1) - 2;
            p.second.resizeRelocate(pad, h - pad - under + 2, Math.min(width, p.second.prefWidth(-1)), under + 2);
        }
        double height = Math.min(p.label.prefHeight(width), h - pad - top - under);
        p.label.resizeRelocate(pad, h - pad - under - height + 3, width, height);
        p.scrim.resizeRelocate(2, h - pad - under - height - 2, w - 4, height + under + pad);
    }
}
