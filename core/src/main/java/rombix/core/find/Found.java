package rombix.core.find;

import rombix.core.chain.Step;

/**
 * A step that could be meant.
 *
 * @param title what it does, in words
 * @param where whose it is
 */
public record Found(String title, String where, Step step, double score) {
}
