package rombix.web.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rombix.core.time.SimulatedClock;
import rombix.web.access.Invitations.Closed;
import rombix.web.access.Invitations.Invitation;
import rombix.web.access.Invitations.Welcome;
import rombix.web.access.Invitations.Wrong;

class InvitationsTest {
    private static final long SECOND = 1_000_000_000L;

    private final SimulatedClock clock = new SimulatedClock();
    private final Invitations invitations = new Invitations(clock);

    private Invitation open() {
        return invitations.open(Set.of("doors"), Set.of(Right.PRESS));
    }

    @Test
    void aCodeLetsOneDeviceInWithWhatItWasMadeFor() {
        Invitation made = open();
        assertThat(made.code()).matches("[A-Z]{6}").doesNotContain("I", "O", "Q");
        assertThat(invitations.attempt(made.code())).isEqualTo(new Welcome(made));
        assertThat(invitations.attempt(made.code())).isInstanceOf(Wrong.class);
    }

    @Test
    void itIsReadAsItIsWrittenByHand() {
        String code = open().code();
        assertThat(invitations.attempt(" " + code.substring(0, 3).toLowerCase(Locale.ROOT) + "-" + code.substring(3)))
                .isInstanceOf(Welcome.class);
    }

    @Test
    void afterTwoMinutesItIsNoLongerGood() {
        Invitation made = open();
        clock.advance(119 * SECOND);
        assertThat(invitations.current()).contains(made);
        clock.advance(SECOND);
        assertThat(invitations.current()).isEmpty();
        assertThat(invitations.attempt(made.code())).isInstanceOf(Wrong.class);
    }

    @Test
    void theNextCodeTakesThePlaceOfTheOneBefore() {
        String before = open().code();
        Invitation now = open();
        assertThat(invitations.attempt(before)).isInstanceOf(Wrong.class);
        assertThat(invitations.attempt(now.code())).isEqualTo(new Welcome(now));
    }

    @Test
    void wrongCodesAreSlowedThenStoppedAndTakenAgainAfterAMinute() {
        String right = open().code();
        for (int i = 1; i < Invitations.MOST_WRONG; i++) {
            assertThat(invitations.attempt("WRONG" + (char) ('A' + i))).isInstanceOfSatisfying(Wrong.class,
                    w -> assertThat(w.waitMillis()).isPositive());
            clock.advance(SECOND);
        }
        assertThat(invitations.attempt("NOTYET")).isEqualTo(new Closed(true));
        assertThat(invitations.attempt(right)).isEqualTo(new Closed(false));
        clock.advance(61 * SECOND);
        Invitation next = open();
        assertThat(invitations.attempt(next.code())).isEqualTo(new Welcome(next));
    }

    @Test
    void codesDiffer() {
        Set<String> codes = new HashSet<>();
        for (int i = 0; i < 500; i++) {
            codes.add(open().code());
        }
        assertThat(codes).hasSize(500);
    }
}
