package rombix.core.board;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Objects;

/** What presses a button beside the hand on its face. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "trigger")
@JsonSubTypes({@JsonSubTypes.Type(Trigger.Key.class)})
public sealed interface Trigger {

    /** In words. */
    String words();

    /** The same for every way in which it can be written. */
    Trigger normal();

    /** A key while the window is in front, in Live and in Rehearse: {@code F5}, {@code Ctrl+K}, {@code 7}. */
    @JsonTypeName("key")
    record Key(String key) implements Trigger {
        public Key {
            Objects.requireNonNull(key, "a key trigger needs a \"key\"");
        }

        @Override
        public String words() {
            return "key " + key;
        }

        @Override
        public Key normal() {
            List<String> parts = new ArrayList<>(List.of(key.toUpperCase(Locale.ROOT).split("\\+")));
            String last = parts.removeLast();
            Collections.sort(parts);
            parts.add(last);
            return new Key(String.join("+", parts));
        }
    }
}
