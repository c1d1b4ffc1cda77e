package rombix.links.link;

import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.UnaryOperator;
import rombix.core.board.Gear;
import rombix.core.card.Card;
import rombix.core.store.CardLibrary;
import rombix.standins.DemoLogin;

/** Stand-ins that want to know who is there, and what they take. */
public final class StandInGear {
    /** A keyring with the secret of the stand-ins, and a wrong one. */
    public static final Keyring KEYS = new Keyring() {
        @Override
        public Optional<String> secret(String name) {
            return name.equals("wrong") ? Optional.of("not this one") : DemoLogin.secret(name);
        }

        @Override
        public Optional<String> firstSeen(String address) {
            return Optional.empty();
        }

        @Override
        public void seen(String address, String fingerprint) {
            // Nothing is kept.
        }
    };

    private StandInGear() {
    }

    /** Gear of a card that ships, as the stand-ins know us. */
    public static GearUnderTest of(LinkType type, String card, String address) {
        return of(type, card, address, link -> link.withUser("booth").withSecret(DemoLogin.SECRET));
    }

    public static GearUnderTest of(LinkType type, String card, String address, UnaryOperator<Gear.Link> set) {
        return of(type, Objects.requireNonNull(CardLibrary.shipped().get(card)), address, set);
    }

    public static GearUnderTest of(LinkType type, Card card, String address, UnaryOperator<Gear.Link> set) {
        return new GearUnderTest(type, card, address, Map.of(), KEYS, set);
    }
}
