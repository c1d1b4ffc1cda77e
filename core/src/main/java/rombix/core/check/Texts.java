package rombix.core.check;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rombix.core.board.Button;
import rombix.core.board.Face;
import rombix.core.board.Rig;
import rombix.core.board.State;
import rombix.core.board.Walk;
import rombix.core.check.Finding.Kind;
import rombix.core.value.Formula;
import rombix.core.value.FormulaFault;

/** Places in texts that stand for nothing: {@code {desk:level/nobody}} on a face, {@code {cuont}} in a message. */
final class Texts {
    private final Rig rig;
    private final List<Finding> findings = new ArrayList<>();
    private final Names names;

    private Texts(Rig rig, Names names) {
        this.rig = rig;
        this.names = names;
    }

    static List<Finding> of(Rig rig, Names names) {
        Texts texts = new Texts(rig, names);
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
                    for (String wrong : wrong(face.label() + " " + face.second(), button, false)) {
                        findings.add(new Finding(Kind.DEAD_REFERENCE, at, where, "the label names " + wrong
                                + ". It shows as —", button.id()));
                    }
                }
            }
        }
    }

    private void steps() {
        Walk.steps(rig.board(), spot -> {
            String text = spot.step().text();
            if (text.isEmpty() || spot.step().how().off()) {
                return;
            }
            for (String wrong : wrong(text, spot.owner().button(), true)) {
                findings.add(Finding.of(Kind.DEAD_REFERENCE, spot.owner(), spot.pointer(), "the text names " + wrong
                        + ". It is shown as —"));
            }
        });
    }

    private List<String> wrong(String text, @Nullable Button of, boolean inChain) {
        List<String> all = new ArrayList<>();
        for (String place : Formula.places(text)) {
            try {
                List<String> named = place.startsWith("=") ? new Formula(place.substring(1)).names() : List.of(place);
                for (String name : named) {
                    String wrong = !inChain && name.equals(Formula.LEFT) ? null : names.wrong(name, of, inChain);
                    if (wrong != null) {
                        all.add("“{" + name + "}”, which " + wrong);
                    }
                }
            } catch (FormulaFault e) {
                all.add("the formula “" + place.substring(1) + "”, which has an error: " + e.getMessage());
            }
        }
        return all;
    }
}
