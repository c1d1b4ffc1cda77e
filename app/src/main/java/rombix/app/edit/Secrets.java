package rombix.app.edit;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import rombix.core.board.Gear;

/**
 * Passwords and tokens of this user, by the names that boards know them by: in a file of their own beside the settings,
 * which nobody else may read. They are handed to links alone. Safe to use from any thread.
 */
public final class Secrets {
    private final NamedLines lines;

    /** Those of this user. */
    public Secrets() {
        lines = new NamedLines(OwnersFile.beside("secrets"));
    }

    public Secrets(Path file) {
        lines = new NamedLines(new OwnersFile(file));
    }

    public Optional<String> get(String name) {
        return lines.get(name);
    }

    public boolean has(String name) {
        return get(name).isPresent();
    }

    public List<String> names() {
        return List.copyOf(lines.all().keySet());
    }

    /**
     * Sets it, or replaces it.
     *
     * @throws IllegalArgumentException in plain words, where the name or the secret cannot be one; never with the secret
     */
    public void set(String name, String secret) throws IOException {
        if (!name.matches(Gear.Link.SECRET_NAME)) {
            throw new IllegalArgumentException("a secret's name is made of letters, digits, dots and dashes");
        }
        if (secret.isEmpty() || secret.chars().anyMatch(Character::isISOControl)) {
            throw new IllegalArgumentException("a secret is one line of text, and not empty");
        }
        lines.set(name, secret);
    }

    /** Forgets it; what wants it is told so at its next attempt to connect. */
    public void forget(String name) throws IOException {
        lines.set(name, null);
    }
}
