package rombix.app.words;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.BinaryTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ExpressionTree;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.ParenthesizedTree;
import com.sun.source.tree.Tree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreeScanner;
import com.sun.source.util.Trees;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.ToolProvider;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/**
 * Every text that a user of Rombix can meet, with its place: string literals of the modules' code that read like words,
 * and the titles and help of the cards that ship. Run it to print them, one line each: place, tab, text.
 */
public final class Inventory {
    /** The modules whose code can reach a user. */
    private static final List<String> MODULES = List.of("core", "wire", "links", "standins", "running", "app");

    /** Fields of a card that a user reads. */
    private static final Set<String> CARD_WORDS = Set.of("title", "help", "note", "says", "unit", "meaning");

    /** Annotations whose strings are for the compiler. */
    private static final Set<String> SILENT = Set.of("SuppressWarnings", "JsonTypeName", "JsonProperty", "JsonSubTypes",
            "JsonTypeInfo", "JsonAlias");

    /** Two words, or one that begins with a capital letter: what else is a name for the program itself. */
    private static final Pattern WORDS = Pattern.compile("\\p{L}{2,}[,:;.?!…]* .*|.* \\p{L}{2,}.*|\\p{Lu}\\p{Ll}+…?");

    /** Code in a literal: patterns, format strings without words, paths, styles, queries. */
    private static final Pattern CODE = Pattern.compile(
            "[-a-z0-9_./:#*?=&$%{}\\[\\]()|\\\\^+<>@,;'\"`~!]*|.*(-fx-|\\(\\?|\\\\p\\{|\\\\d|\\[\\^|\\.css|://).*");

    private Inventory() {
    }

    /** A text, and where it stands, as {@code path:line}. */
    public record Text(String at, String text) {
    }

    /** Prints the inventory of the project in the folder given first, or of the one above this. */
    public static void main(String[] args) throws IOException {
        List<Text> all = of(Path.of(args.length > 0 ? args[0] : ".."));
        PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
        all.forEach(t -> out.println(t.at() + "\t" + t.text()));
        out.println(all.size() + " texts");
    }

    /** The texts of the project in {@code root}, by module and file. */
    public static List<Text> of(Path root) throws IOException {
        List<Text> all = new ArrayList<>();
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        for (String module : MODULES) {
            List<Path> sources = files(root.resolve(module).resolve("src/main/java"), ".java");
            try (var manager = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8)) {
                JavacTask task = (JavacTask) compiler.getTask(null, manager, null, List.of("-proc:none"), null,
                        manager.getJavaFileObjectsFromPaths(sources));
                for (CompilationUnitTree unit : task.parse()) {
                    new Finder(root, unit, Trees.instance(task), all).scan(unit, null);
                }
            }
        }
        ObjectMapper json = new ObjectMapper();
        for (Path card : files(root.resolve("core/src/main/resources/rombix/cards"), ".json")) {
            words(json.readTree(card.toFile()), root.relativize(card).toString(), all);
        }
        return all;
    }

    private static List<Path> files(Path folder, String ending) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(f -> f.toString().endsWith(ending)).sorted().toList();
        }
    }

    private static void words(JsonNode node, String at, List<Text> all) {
        for (Map.Entry<String, JsonNode> field : node.properties()) {
            if (field.getValue().isString() && CARD_WORDS.contains(field.getKey())) {
                all.add(new Text(at + ":" + field.getKey(), field.getValue().asString()));
            }
        }
        node.forEach(child -> words(child, at, all));
    }

    private static final class Finder extends TreeScanner<@Nullable Void, @Nullable Void> {
        private final Path root;
        private final CompilationUnitTree unit;
        private final Trees trees;
        private final List<Text> all;

        Finder(Path root, CompilationUnitTree unit, Trees trees, List<Text> all) {
            this.root = root;
            this.unit = unit;
            this.trees = trees;
            this.all = all;
        }

        @Override
        public @Nullable Void visitAnnotation(AnnotationTree node, @Nullable Void p) {
            return SILENT.contains(node.getAnnotationType().toString()) ? null : super.visitAnnotation(node, p);
        }

        @Override
        public @Nullable Void visitBinary(BinaryTree node, @Nullable Void p) {
            StringBuilder text = new StringBuilder();
            if (node.getKind() != Tree.Kind.PLUS || !joined(node, text)) {
                return super.visitBinary(node, p);
            }
            add(node, text.toString());
            return null;
        }

        /** Whether {@code e} is a concatenation with a literal in it; its text goes to {@code text}, with {…} for the rest. */
        private boolean joined(ExpressionTree e, StringBuilder text) {
            if (e instanceof ParenthesizedTree in && in.getExpression() instanceof BinaryTree) {
                return joined(in.getExpression(), text);
            }
            if (e instanceof BinaryTree sum && sum.getKind() == Tree.Kind.PLUS) {
                boolean left = joined(sum.getLeftOperand(), text);
                return joined(sum.getRightOperand(), text) || left;
            }
            if (e instanceof LiteralTree literal && literal.getValue() instanceof String s) {
                text.append(s);
                return true;
            }
            text.append("{…}");
            scan(e, null);
            return false;
        }

        @Override
        public @Nullable Void visitLiteral(LiteralTree node, @Nullable Void p) {
            if (node.getValue() instanceof String s) {
                add(node, s);
            }
            return null;
        }

        private void add(Tree node, String text) {
            String bare = text.replace("{…}", "").strip();
            if (WORDS.matcher(bare).matches() && !CODE.matcher(bare.replace(" ", "_ ")).matches()) {
                long line = unit.getLineMap().getLineNumber(trees.getSourcePositions().getStartPosition(unit, node));
                Path file = root.toAbsolutePath().normalize()
                        .relativize(Path.of(unit.getSourceFile().toUri()).normalize());
                all.add(new Text(file + ":" + line, text.replace("\n", "\\n")));
            }
        }
    }
}
