package rombix.running.owner;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.UUID;
import rombix.core.board.Gear;
import rombix.core.trust.Redactor;
import rombix.core.twin.Twin;

/**
 * Passwords and tokens of this user, by the names that boards know them by: in a file of their own beside the settings,
 * which nobody else may read. They are handed to links alone. Safe to use from any thread.
 */
public final class Secrets {
    private static final int MOST_ASKED = 16;
    /** What was asked for at a press, by the names that stand for it; this process's alone, each used once. */
    private static final Map<String, String> ASKED = new LinkedHashMap<>();

    private static final List<Lent> LENDERS = ServiceLoader.load(Lent.class).stream().map(ServiceLoader.Provider::get)
            .toList();

    private final NamedLines lines;

    /** Those of this user. */
    public Secrets() {
        lines = new NamedLines(OwnersFile.beside("secrets"));
    }

    public Secrets(Path file) {
        lines = new NamedLines(new OwnersFile(file));
    }

    /** The secret with a name; one that is lent, too. */
    public Optional<String> get(String name) {
        return lines.get(name).or(() -> LENDERS.stream().flatMap(l -> l.secret(name).stream()).findFirst());
    }

    /** Keeps a text in this process until it is taken; gives a name that stands for it. */
    public static String asked(String text) {
        synchronized (ASKED) {
            String name = Twin.ASKED + UUID.randomUUID();
            ASKED.put(name, text);
            while (ASKED.size() > MOST_ASKED) {
                ASKED.remove(ASKED.keySet().iterator().next());
            }
            return name;
        }
    }

    /** The text for a name: one that was asked for is gone with that, one that is kept stays. */
    public Optional<String> take(String name) {
        synchronized (ASKED) {
            String asked = ASKED.remove(name);
            Optional<String> taken = asked == null ? get(name) : Optional.of(asked);
            taken.ifPresent(text -> Redactor.PROCESS.remember(name.startsWith(Twin.ASKED) ? "asked for" : name, text));
            return taken;
        }
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
            throw new IllegalArgumentException("a secret's name may contain letters, digits, dots and dashes");
        }
        boolean pem = secret.startsWith("-----BEGIN ");
        if (secret.isEmpty() || !pem && secret.chars().anyMatch(Character::isISOControl)) {
            throw new IllegalArgumentException("a secret is one line of text and can't be empty");
        }
        lines.set(name, secret);
    }

    /** Forgets it; what wants it is told so at its next attempt to connect. */
    public void forget(String name) throws IOException {
        lines.set(name, null);
    }
}
