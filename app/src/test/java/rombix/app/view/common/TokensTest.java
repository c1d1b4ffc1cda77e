package rombix.app.view.common;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** No colour, type size or space stands outside the token sheet, and every name is there in both themes. */
class TokensTest {
    private static final Path STYLES = Path.of("src/main/resources/rombix/app");
    private static final Path VIEWS = Path.of("src/main/java/rombix/app/view");

    private static List<String> found(String regex, String text) {
        List<String> all = new ArrayList<>();
        Matcher m = Pattern.compile(regex).matcher(text);
        while (m.find()) {
            all.add(m.group());
        }
        return all;
    }

    private static String sheet(String name) throws IOException {
        return Files.readString(STYLES.resolve(name)).replaceAll("(?s)/\\*.*?\\*/", "");
    }

    @Test
    void theStyleSheetHasNoLiteralOfItsOwn() throws IOException {
        String css = sheet("rombix.css");
        assertThat(found("#[0-9A-Fa-f]{3,8}\\b|rgba?\\(|\\b(white|black|grey|gray|red)\\b", css)).as("colours")
                .isEmpty();
        assertThat(found("-fx-font-size: *[0-9][^;]*", css)).as("type sizes").isEmpty();
        assertThat(found("-fx-(padding|spacing|hgap|vgap):[^;]*(?<![\\w-])[1-9][^;]*", css)).as("spaces").isEmpty();
    }

    @Test
    void codeHasNoLiteralOfItsOwn() throws IOException {
        List<String> literals = new ArrayList<>();
        try (Stream<Path> all = Files.walk(VIEWS)) {
            for (Path p : (Iterable<Path>) all.filter(f -> f.toString().endsWith(".java"))::iterator) {
                String code = Files.readString(p);
                for (String at : found(
                        "new (HBox|VBox|GridPane|FlowPane)\\([1-9][0-9]*[,)]|set(Spacing|Hgap|Vgap)\\([1-9]"
                                + "|Insets\\([^)]*(?<![\\w.])[1-9]|\"#[0-9A-Fa-f]{6}\"|-fx-font-size: *[0-9]",
                        code)) {
                    literals.add(p.getFileName() + ": " + at);
                }
            }
        }
        assertThat(literals).isEmpty();
    }

    @Test
    void everyNameThatIsUsedIsThereInBothThemes() throws IOException {
        String tokens = sheet("tokens.css");
        Set<String> both = new TreeSet<>(named(tokens, "\\.root\\.night"));
        assertThat(both).isEqualTo(new TreeSet<>(named(tokens, "\\.root\\.day"))).isNotEmpty();
        both.addAll(named(tokens, "\\.root(?!\\.)"));
        Set<String> used = new TreeSet<>(found("(?<=[:, (])-(?!fx-)[a-z][a-z0-9-]*", sheet("rombix.css") + tokens
                .replaceAll("(?m)^\\s*-[a-z0-9-]+:", ":")));
        assertThat(both).containsAll(used);
    }

    private static List<String> named(String tokens, String block) {
        List<String> names = new ArrayList<>();
        Matcher m = Pattern.compile(block + "\\s*\\{([^}]*)}").matcher(tokens);
        while (m.find()) {
            names.addAll(found("(?m)^\\s*-[a-z0-9-]+(?=:)", m.group(1)).stream().map(String::strip).toList());
        }
        return names;
    }

    @Test
    void aSizeThatNobodyNamedIsRefused() {
        assertThat(Tokens.size("-space-8")).isEqualTo(8);
        assertThatThrownBy(() -> Tokens.size("-space-77")).hasMessageContaining("no token -space-77");
        assertThat(Tokens.sheets()).hasSize(2).allMatch(s -> s.startsWith("data:text/css"));
    }

    /** A second window took half as long again: for each of its nodes the toolkit compared these texts letter by letter. */
    @Test
    void windowsShareTheTextsOfTheirStyleSheets() {
        for (int i = 0; i < 2; i++) {
            assertThat(Tokens.sheets().get(i)).isSameAs(Tokens.sheets().get(i));
        }
    }
}
