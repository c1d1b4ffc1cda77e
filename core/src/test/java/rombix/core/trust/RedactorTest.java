package rombix.core.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.AlphaChars;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rombix.core.value.Value;
import rombix.core.value.Visible;

class RedactorTest {
    private final Redactor redactor = new Redactor();

    @ParameterizedTest
    @ValueSource(strings = {"möss & granite", "moss-and-granite", "pa\"ss\\word/1", "токен-двенадцать"})
    void aSecretIsHiddenInEveryFormInWhichItGoesOut(String secret) {
        redactor.remember("desk", secret);
        byte[] bytes = secret.getBytes(StandardCharsets.UTF_8);
        for (String form : List.of("Bearer " + secret, "invalid header value: \"Bearer " + secret + "\"",
                "GET /key/" + java.net.URLEncoder.encode(secret, StandardCharsets.UTF_8) + "?x=1", "GET /key/"
                        + java.net.URLEncoder.encode(secret, StandardCharsets.UTF_8).replace("+", "%20"),
                HexFormat.of().formatHex(bytes), "user:realm:" + secret, "{\"token\":\"" + secret.replace("\\", "\\\\")
                        .replace("\"", "\\\"") + "\"}",
                new String(bytes, StandardCharsets.ISO_8859_1))) {
            assertThat(redactor.clean("a " + form + " b")).contains("(secret “desk”)").startsWith("a ").endsWith(" b");
        }
    }

    @Property(tries = 200)
    void itIsHiddenInBase64WhateverStandsAroundIt(@ForAll @AlphaChars @StringLength(max = 12) String before,
            @ForAll @AlphaChars @StringLength(max = 12) String behind) {
        redactor.remember("desk", "moss-and-granite");
        String encoded = Base64.getEncoder().encodeToString((before + "moss-and-granite" + behind).getBytes(
                StandardCharsets.UTF_8));
        assertThat(redactor.clean("Basic " + encoded)).contains("(secret “desk”)");
    }

    @Test
    void aShortOneIsHiddenOnlyWhereItStandsByItself() {
        redactor.remember("pin", "1234");
        assertThat(redactor.clean("pin 1234, 12345 and 1234"))
                .isEqualTo("pin (secret “pin”), 12345 and (secret “pin”)");
    }

    @Test
    void listsAndTheirFieldsAreCleanedToo() {
        redactor.remember("desk", "moss-and-granite");
        Value clean = redactor.clean(new Value.Choices(List.of(new Value.Choice("moss-and-granite", "x", Map.of("key",
                Value.of("=moss-and-granite"))))));
        assertThat(clean.toString()).doesNotContain("granite");
        assertThat(redactor.clean(Value.of(3))).isEqualTo(Value.of(3));
    }

    @Test
    void charactersThatATerminalObeysOrThatTurnTheDirectionAreSeen() {
        assertThat(Visible.line("a\u001b[2Jb\u202Ec\nd\u0085\u2066")).isEqualTo(
                "a⟨U+001B⟩[2Jb⟨U+202E⟩c⟨U+000A⟩d⟨U+0085⟩⟨U+2066⟩");
        assertThat(Visible.text("a\nb\u200F")).isEqualTo("a\nb\u200F");
        Ask ask = new Ask(Ask.Kind.WORKS_HERE, "k", "Lamp\u202E", "runs programs: \u001b]0;x\u0007");
        assertThat(ask.name() + ask.words()).doesNotContain("\u202E", "\u001b", "\u0007");
    }
}
