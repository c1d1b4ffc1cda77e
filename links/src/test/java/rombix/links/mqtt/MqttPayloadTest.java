package rombix.links.mqtt;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rombix.core.value.Value;

class MqttPayloadTest {
    /** A plug that wanted true was told yes. */
    @Test
    void aFlagGoesOutAsOtherProgramsWriteIt() {
        assertThat(MqttLink.payload(Value.of(true))).isEqualTo("true");
        assertThat(MqttLink.payload(Value.of(false))).isEqualTo("false");
        assertThat(MqttLink.payload(Value.of(21.5))).isEqualTo("21.5");
        assertThat(MqttLink.payload(Value.of("on"))).isEqualTo("on");
    }
}
