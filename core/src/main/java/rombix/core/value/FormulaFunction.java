package rombix.core.value;

import java.util.List;

/**
 * A function of formulas, as people look it up.
 *
 * @param call with its arguments, ready to be put into a formula
 * @param meaning what it gives, in a few words
 */
public record FormulaFunction(String call, String meaning) {
    /** All there are. */
    public static final List<FormulaFunction> ALL = List.of(new FormulaFunction("MIN(1, 2)", "the smallest"),
            new FormulaFunction("MAX(1, 2)", "the largest"),
            new FormulaFunction("ROUND(1.25, 1)", "rounded to so many places"),
            new FormulaFunction("FLOOR(1.5)", "the whole number below"),
            new FormulaFunction("CEILING(1.5)", "the whole number above"),
            new FormulaFunction("ABS(-1)", "without its sign"),
            new FormulaFunction("IF(1 > 0, \"yes\", \"no\")", "one of two, by a test"),
            new FormulaFunction("NOT(1 > 2)", "the opposite of a test"),
            new FormulaFunction("TEXT(1.25, 1)", "a number as text, with so many places"),
            new FormulaFunction("UPPER(\"text\")", "in capital letters"),
            new FormulaFunction("LOWER(\"text\")", "in small letters"),
            new FormulaFunction("CONTAINS(\"find\", \"text\")", "whether a text contains another"),
            new FormulaFunction("NOW()", "seconds since midnight"),
            new FormulaFunction("TIME_TO(\"21:30\")", "seconds until a time of day; below zero after it"),
            new FormulaFunction("FORMAT_TIME(90, \"mm:ss\")", "seconds as hours, minutes and seconds"));
}
