package rombix.torture;

import java.util.List;

/** Tries to break one promise, again and again. */
interface Trial {
    String name();

    /** How many tries it is to come to. */
    long whole();

    /** Which part of all time it may take. */
    double share();

    Outcome suffer(Budget budget) throws Exception;

    /**
     * What became of it.
     *
     * @param breaches what broke, in words; nothing where the promise held
     * @param figure what was measured beside, in words
     */
    record Outcome(long tries, List<String> breaches, String figure) {
    }
}
