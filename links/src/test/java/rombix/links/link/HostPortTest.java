package rombix.links.link;

import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.CountDownLatch;
import java.io.InterruptedIOException;
import java.io.IOException;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import rombix.core.card.Protocol;

class HostPortTest {
    /** A password that was written into an address was tried as a host, and stood in the fault and the log. */
    @Test
    void aPasswordInAnAddressIsRefusedAndNotRepeated() {
        assertThatThrownBy(() -> HostPort.of("guard:s3same@gate.local:1883")).hasMessageContaining(
                "set them separately").hasMessageNotContaining("s3same");
        assertThat(Protocol.of("mqtt").wrongAddress("guard:s3same@gate.local:1883")).contains("separately")
                .doesNotContain("s3same");
        assertThat(HostPort.words(HostPort.of("gate.local:1883"))).isEqualTo("gate.local:1883");
    }

    @Test
    void whoeverWaitsForANameThatNobodyAnswersForCanBeInterrupted() throws InterruptedException {
        CountDownLatch asked = new CountDownLatch(1);
        CountDownLatch never = new CountDownLatch(1);
        AtomicReference<Throwable> why = new AtomicReference<>();
        Thread waiting = Thread.startVirtualThread(() -> {
            try {
                HostPort.aside("name", () -> {
                    asked.countDown();
                    never.await();
                    return "known";
                });
            } catch (IOException e) {
                why.set(e);
            }
        });
        asked.await();
        waiting.interrupt();
        waiting.join();
        never.countDown();
        assertThat(why.get()).isInstanceOf(InterruptedIOException.class);
    }
}
