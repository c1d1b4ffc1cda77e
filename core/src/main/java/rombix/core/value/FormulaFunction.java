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
            new FormulaFunction("ROUND(1.25, 1)", "rounded to this many places"),
            new FormulaFunction("FLOOR(1.5)", "rounded down"),
            new FormulaFunction("CEILING(1.5)", "rounded up"),
            new FormulaFunction("ABS(-1)", "absolute value"),
            new FormulaFunction("IF(1 > 0, \"yes\", \"no\")", "one of two values, depending on a condition"),
            new FormulaFunction("NOT(1 > 2)", "the opposite of a condition"),
            new FormulaFunction("TEXT(1.25, 1)", "a number as text, with this many places"),
            new FormulaFunction("UPPER(\"text\")", "in upper case"),
            new FormulaFunction("LOWER(\"text\")", "in lower case"),
            new FormulaFunction("CONTAINS(\"find\", \"text\")", "whether a text contains another"),
            new FormulaFunction("NOW()", "seconds since midnight"),
            new FormulaFunction("TIME_TO(\"21:30\")", "seconds until a time of day; below zero after it"),
            new FormulaFunction("FORMAT_TIME(90, \"mm:ss\")", "seconds as hours, minutes and seconds"));
}
