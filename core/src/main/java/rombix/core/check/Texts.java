package rombix.core.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rombix.core.board.Board.BoardValue;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Walk;
import rombix.core.card.Twin;
import rombix.core.chain.DeckStep;
import rombix.core.chain.Step;
import rombix.core.check.Finding.Kind;

/** Places in texts that stand for nothing: {@code {desk:level/nobody}} on a face, {@code {cuont}} in a message. */
final class Texts {
    /** A place that is no formula. */
    private static final Pattern PLACE = Pattern.compile("\\{([^{}=][^{}]*)}");
    /** What chains know without anybody having said so. */
    private static final Set<String> ALWAYS = Set.of("turn", "across", "up", "answer", "value");

    private final Rig rig;
    private final List<Finding> findings = new ArrayList<>();
    private final Set<String> values = new HashSet<>();
    /** What some chain may know at some time: counts of repeats, answers, arguments. */
    private final Set<String> chains = new HashSet<>(ALWAYS);

    private Texts(Rig rig) {
        this.rig = rig;
        rig.board().values().forEach(v -> values.add(v.id()));
        rig.board().chains().forEach(c -> chains.addAll(c.params()));
        Walk.steps(rig.board(), spot -> {
            switch (spot.step()) {
                case Step.Repeat r -> chains.add(String.valueOf(r.count()));
                case DeckStep.Ask a -> chains.add(String.valueOf(a.into()));
                case DeckStep.Use u -> chains.addAll(u.with().keySet());
                default -> {
                    // It gives nothing a name.
                }
            }
        });
    }

    static List<Finding> of(Rig rig) {
        Texts texts = new Texts(rig);
        texts.faces();
        texts.steps();
        return texts.findings;
    }

    private void faces() {
        for (int p = 0; p < rig.board().pages().size(); p++) {
            for (int b = 0; b < rig.board().pages().get(p).buttons().size(); b++) {
                Button button = rig.board().pages().get(p).buttons().get(b);
                for (int s = 0; s < button.states().size(); s++) {
                    State state = button.states().get(s);
                    Face face = state.face();
                    String at = "/pages/%d/buttons/%d/states/%d/face".formatted(p, b, s);
                    String where = "“" + button.name() + "”";
                    for (String name : dead(face.label() + " " + face.second(), own(button))) {
                        findings.add(new Finding(Kind.DEAD_REFERENCE, at, where, "the label names “{" + name
                                + "}”, which is no value and no reading here; it shows as —", button.id()));
                    }
                }
            }
        }
    }

    private void steps() {
        Walk.steps(rig.board(), spot -> {
            String text = switch (spot.step()) {
                case DeckStep.Say s -> s.text();
                case DeckStep.Ask a -> a.question();
                default -> "";
            };
            if (text.isEmpty() || spot.step().how().off()) {
                return;
            }
            Button button = spot.owner().button();
            Set<String> known = new HashSet<>(chains);
            known.addAll(button == null ? values : own(button));
            for (String name : dead(text, known)) {
                findings.add(Finding.of(Kind.DEAD_REFERENCE, spot.owner(), spot.pointer(), "the text names “{" + name
                        + "}”, which is no value and no reading here; it is shown as —"));
            }
        });
    }

    private Set<String> own(Button button) {
        Set<String> own = new HashSet<>(values);
        button.values().stream().map(BoardValue::id).forEach(own::add);
        return own;
    }

    private List<String> dead(String text, Set<String> known) {
        List<String> dead = new ArrayList<>();
        Matcher m = PLACE.matcher(text);
        while (m.find()) {
            String name = m.group(1);
            int colon = name.indexOf(':');
            Twin twin = colon < 0 ? null : rig.twins().get(name.substring(0, colon));
            boolean there = colon < 0
                    ? known.contains(name)
                    : twin != null && twin.reading(name.substring(colon + 1),
                            Twin.Readings.NONE).isPresent();
            if (!there) {
                dead.add(name);
            }
        }
        return dead;
    }
}
