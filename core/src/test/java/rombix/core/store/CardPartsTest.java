package rombix.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rombix.core.card.Card;
import rombix.core.card.Protocol;
import rombix.core.store.CardRows.Part;
import rombix.core.store.CardRows.Row;

/** A row's parts, each of which is said by itself. */
class CardPartsTest {
    private static final Card PROJECTOR = Objects.requireNonNull(CardLibrary.shipped().get("projector"));
    private static final Protocol LINE = Protocol.of("line");

    private static Row row(String id) {
        return CardRows.of(PROJECTOR, LINE).stream().filter(r -> r.id().equals(id)).findFirst().orElseThrow();
    }

    private static Part part(Row row, String label) {
        return CardRows.parts(row, LINE).stream().filter(p -> p.label().equals(label)).findFirst().orElseThrow();
    }

    @Test
    void aReadingsPartsAreSaidByThemselves() {
        Row hours = row("hours");
        assertThat(part(hours, "Source").value()).isEqualTo("line");
        String text = CardRows.with(hours.text(), part(hours, "Unit"), "days");
        text = CardRows.with(text, part(hours, "Maximum"), "9000");
        Card changed = CardRows.with(PROJECTOR, hours, hours.title(), text);
        var spec = changed.readings().stream().filter(r -> r.id().toString().equals("hours")).findFirst().orElseThrow();
        assertThat(spec.unit()).isEqualTo("days");
        assertThat(spec.max()).isEqualTo(9000);
        assertThat(CardRows.with(text, part(hours, "Maximum"), "")).doesNotContain("9000");
    }

    @Test
    void aCommandsMessageIsSaidByItself() {
        Row row = CardRows.of(PROJECTOR, LINE).stream().filter(Row::command).findFirst().orElseThrow();
        List<Part> parts = CardRows.parts(row, LINE);
        assertThat(parts).extracting(Part::label).contains("To", "Payload");
        String text = CardRows.with(row.text(), part(row, "Payload"), "[\"HELLO\"]");
        assertThat(CardRows.with(PROJECTOR, row, row.title(), text)).isNotEqualTo(PROJECTOR);
    }

    @Test
    void whatIsWrongWithAPartIsSaidInPlainWords() {
        Row row = CardRows.of(PROJECTOR, LINE).stream().filter(Row::command).findFirst().orElseThrow();
        assertThatThrownBy(() -> CardRows.with(row.text(), part(row, "Payload"), "[\"HELLO")).isInstanceOf(
                IllegalArgumentException.class).hasMessageStartingWith("Not readable");
        String wrong = CardRows.with(row.text(), part(row, "To"), "no such place!");
        assertThatThrownBy(() -> CardRows.with(PROJECTOR, row, row.title(), wrong)).hasMessageContaining(
                "no such place!");
    }
}
