package rombix.core.store;

import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.BiConsumer;
import rombix.core.card.Card;
import rombix.core.card.Channel;

/** What is wrong with a card as a personality. */
final class ChannelCheck {
    private ChannelCheck() {
    }

    /** What the slots of a fixture mean has to be told apart, and a second part needs a first. */
    static void of(Card card, BiConsumer<String, String> flaw) {
        List<Channel> all = card.channels();
        Set<String> labels = new HashSet<>();
        for (int i = 0; i < all.size(); i++) {
            Channel c = all.get(i);
            if (c.is() != Channel.Kind.FIXED && !labels.add(c.is() + " " + c.label())) {
                flaw.accept("/channels/" + i,
                        "two channels are “%s”: give one another “name”, or mark it as “fine”".formatted(c
                                .label()));
            }
            if (c.fine() && all.stream().noneMatch(o -> !o.fine() && o.is() == c.is() && Objects.equals(o.name(), c
                    .name()))) {
                flaw.accept("/channels/" + i, "“%s” is the fine byte of no other channel".formatted(c.label()));
            }
        }
        if (!all.isEmpty() && !(card.readings().isEmpty() && card.commands().isEmpty())) {
            flaw.accept("/channels", "a card with channels is a personality, and has neither readings nor commands");
        }
        card.patch().forEach((ability, place) -> {
            int dot = place.indexOf('.');
            if (dot <= 0 || !card.lists().containsKey(place.substring(0, dot))) {
                flaw.accept("/patch/" + ability, "“%s” is not LIST.FIELD with a list of this card".formatted(place));
            }
        });
    }
}
