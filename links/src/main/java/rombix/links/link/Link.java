package rombix.links.link;

import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import rombix.core.event.Glide;
import rombix.core.sight.Pixels;
import rombix.core.sight.Sights;
import rombix.core.touch.Touch;
import rombix.core.trust.Grants;
import rombix.core.twin.Order;

/** The transport to one gear. It looks after itself: it connects, reports, and comes back when the gear does. */
public interface Link extends AutoCloseable {
    /** Sends an order and answers for the ticket, once. Called on the conductor's thread; does not block. */
    void send(long ticket, Order order);

    /** See {@link rombix.core.event.Gears#glide}. */
    default boolean glide(Glide glide) {
        return false;
    }

    /** See {@link rombix.core.event.Gears#halt}. */
    default void halt(Glide glide) {
        // Nothing moves by itself here.
    }

    /** See {@link rombix.core.event.Gears#cancel}. */
    default void cancel(long ticket) {
        // Nothing goes on by itself here.
    }

    /** See {@link rombix.core.event.Gears#stop}. */
    default void stop() {
        // Nothing goes on by itself here.
    }

    /** What the board may have it do from now on, where that wants leave. */
    default void granted(Grants grants) {
        // It only says things to its gear, which it may reach.
    }

    /** What the board has it look for, from now on; asked for on the link's own thread, as it takes a while. */
    default void sights(Supplier<Sights> sights) {
        // There is nothing to be seen here.
    }

    /** Whether it goes on when its gear gets another card, whose greeting and polls are the same. */
    default boolean goesOn() {
        return false;
    }

    /** Its gear has another card. */
    default void described() {
        // What it reads is asked for each time.
    }

    /**
     * Follows topics of the board's triggers from now on, beside those of its card.
     *
     * @param touched told of each message that comes, on any thread; must not block
     */
    default void calls(Set<String> topics, Consumer<Touch.Mqtt> touched) {
        // There are no topics.
    }

    /** Whether all that can be heard is handed on from now on, not only what the gear's card reads. */
    default void overhear(boolean all) {
        // All is handed on as it comes.
    }

    /**
     * Shows some slots so that what stands there can be found, whatever else is set; as long as nothing else is said.
     *
     * @param slots levels from 0 to 255, by universe and slot
     */
    default void light(Map<Integer, Map<Integer, Integer>> slots) {
        // There are no slots.
    }

    /** What its screens show now; null where there is nothing to be seen. It may block. From any thread. */
    default @Nullable Pixels look() {
        return null;
    }

    /** Lets go of everything. Orders not answered yet are answered with a fault. */
    @Override
    void close();
}
