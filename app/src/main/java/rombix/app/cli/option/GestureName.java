package rombix.app.cli.option;

import java.util.Arrays;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine;
import rombix.core.chain.Gesture;

/** A gesture by its name in files. */
public final class GestureName implements ITypeConverter<Gesture> {
    @Override
    public Gesture convert(String text) {
        for (Gesture g : Gesture.values()) {
            if (g.id().equals(text)) {
                return g;
            }
        }
        throw new CommandLine.TypeConversionException("expected one of %s, not %s".formatted(String.join(", ",
                Arrays.stream(Gesture.values()).map(Gesture::id).toList()), text));
    }
}
