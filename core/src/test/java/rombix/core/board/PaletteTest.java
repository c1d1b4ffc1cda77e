package rombix.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import rombix.core.board.Palette.Colour;

class PaletteTest {
    static Stream<Colour> tints() {
        return Palette.TINTS.stream();
    }

    @ParameterizedTest
    @MethodSource("tints")
    void everyTintCanBeReadAndHasInksAndAccentsToChooseFrom(Colour tint) {
        assertThat(Contrast.of(Contrast.inkOn(tint.hex()), tint.hex())).as(tint.name())
                .isGreaterThanOrEqualTo(Contrast.TEXT);
        assertThat(Palette.legible(Palette.INKS, tint.hex(), Contrast.TEXT)).as(tint.name()).isNotEmpty();
        assertThat(Palette.legible(Palette.ACCENTS, tint.hex(), Contrast.ICON)).as(tint.name()).isNotEmpty();
    }

    @Test
    void aFaceIsMadeLegibleByLeavingToTheTintWhatCannotBeRead() {
        Face bad = Face.PLAIN.withTint("#F4F1E6").withInk("#FFFFFF").withAccent("#FFD98A");
        Face clear = Palette.legible(bad);
        assertThat(clear.ink()).isNull();
        assertThat(clear.accent()).isNull();
        assertThat(clear.tint()).isEqualTo("#F4F1E6");
        Face good = bad.withInk("#14100A").withAccent("#5A1A20");
        assertThat(Palette.legible(good)).isEqualTo(good);
        assertThat(Palette.legible(Face.PLAIN.withInk("#FFFFFF"))).as("without a tint of its own, the theme sees to it")
                .isEqualTo(Face.PLAIN.withInk("#FFFFFF"));
    }

    @Test
    void noTwoColoursOfAListShareANameOrAValue() {
        for (List<Colour> list : List.of(Palette.TINTS, Palette.INKS, Palette.ACCENTS)) {
            assertThat(list.stream().map(Colour::name)).doesNotHaveDuplicates();
            assertThat(list.stream().map(Colour::hex)).doesNotHaveDuplicates();
        }
    }
}
