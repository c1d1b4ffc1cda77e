package rombix.app.view.common;

import java.util.Collection;
import java.util.function.Function;
import rombix.core.check.CheckContext;
import rombix.core.twin.Twin;

/**
 * What a check of a board knows beyond the board: the icons that ship, and what gear says now.
 *
 * @param gear the readings of a gear, by its id
 */
public record Checking(Function<String, Twin.Readings> gear) implements CheckContext {
    @Override
    public Twin.Readings readings(String of) {
        return gear.apply(of);
    }

    @Override
    public boolean icon(String name) {
        return Icons.known(name);
    }

    @Override
    public Collection<String> icons() {
        return Icons.names();
    }
}
