package rombix.core.traffic;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** The result of a connection test: each step, and why the first failed one did. Immutable. */
public record WhyNot(List<Stage> stages) {
    /** How a stage ended. */
    public enum Verdict {
        GOOD("OK"), FAILED("failed"),
        /** What has to be so before it is not, so it was not tried. */
        UNTRIED("not tested"),
        /** It cannot be seen from here, or there is no such thing on this way. */
        NOTHING("—");

        private final String words;

        Verdict(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * One stage of the way.
     *
     * @param what it is about, in a few words
     * @param words what was found, in plain words
     * @param next what to do next; empty where nothing is wrong
     */
    public record Stage(String what, Verdict verdict, String words, String next) {
    }

    public WhyNot {
        stages = List.copyOf(stages);
    }

    /** Where nothing can be walked: why, and what to do. */
    public static WhyNot none(String words, String next) {
        return new WhyNot(List.of(new Stage("Address", Verdict.FAILED, words, next)));
    }

    /** Where the way ends; null where it goes all through. */
    public @Nullable Stage end() {
        return stages.stream().filter(s -> s.verdict() == Verdict.FAILED).findFirst().orElse(null);
    }
}
