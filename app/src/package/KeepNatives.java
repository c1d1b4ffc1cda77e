import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Takes the native libraries of all other systems and processors out of the JAR files of a folder: {@code java
 * KeepNatives.java FOLDER}. A JAR file of nothing else goes altogether. What it can't place stays.
 */
public final class KeepNatives {
    private static final Pattern NATIVE = Pattern.compile(".*\\.(so|dll|dylib|jnilib|a)");
    /** The names that libraries give to systems, as parts of a path. */
    private static final Map<String, Pattern> SYSTEMS = Map.of("linux", Pattern.compile("linux"), "musl", Pattern.compile(
            "linux-musl"), "windows", Pattern.compile("windows|win32"), "mac", Pattern.compile("mac|macos|osx|darwin"),
            "other", Pattern.compile("freebsd|openbsd|dragonflybsd|solaris|sunos|android|aix"));
    /** The names that libraries give to processors. */
    private static final Map<String, Pattern> PROCESSORS = Map.of("x64", Pattern.compile("x86[_-]64|amd64|x64"), "arm64",
            Pattern.compile("aarch64|arm64|arm64-v8a|armv8_64"), "other", Pattern.compile(
                    "x86|arm|armel|armv(?!8_64).*|armeabi.*|ppc.*|riscv64|mips.*|loongarch64|s390x|sparc.*"));

    private KeepNatives() {
    }

    public static void main(String[] args) throws IOException {
        try (Stream<Path> jars = Files.list(Path.of(args[0]))) {
            for (Path jar : jars.filter(f -> f.toString().endsWith(".jar")).toList()) {
                if (!strip(jar)) {
                    Files.delete(jar);
                }
            }
        }
    }

    /** Whether anything but what describes the JAR file is left in it. */
    private static boolean strip(Path jar) throws IOException {
        try (FileSystem files = FileSystems.newFileSystem(jar)) {
            List<Path> all;
            try (Stream<Path> walk = Files.walk(files.getPath("/"))) {
                all = walk.filter(Files::isRegularFile).toList();
            }
            List<Path> others = all.stream().filter(f -> NATIVE.matcher(f.toString()).matches() && !ours(f)).toList();
            for (Path other : others) {
                Files.delete(other);
            }
            return others.isEmpty() || all.stream().anyMatch(f -> !others.contains(f) && !f.startsWith("/META-INF")
                    && !f.toString().matches(".*\\.(sha1|git)"));
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private static boolean ours(Path file) {
        String system = named(SYSTEMS, file);
        String processor = named(PROCESSORS, file);
        return (system.isEmpty() || system.equals(system(System.getProperty("os.name")))) && (processor.isEmpty()
                || processor.equals(named(PROCESSORS, Path.of(System.getProperty("os.arch")))));
    }

    private static String system(String name) {
        String lower = name.toLowerCase(Locale.ROOT);
        return lower.contains("win") ? "windows" : lower.contains("mac") ? "mac" : lower;
    }

    /** What the first folder says that is named for one of these, as such or as a part between hyphens. */
    private static String named(Map<String, Pattern> names, Path file) {
        for (Path folder : file) {
            String whole = folder.toString().toLowerCase(Locale.ROOT);
            for (Map.Entry<String, Pattern> name : names.entrySet()) {
                if (name.getValue().matcher(whole).matches()) {
                    return name.getKey();
                }
            }
            int hyphen = whole.indexOf('-');
            for (Map.Entry<String, Pattern> name : names.entrySet()) {
                if (hyphen > 0 && (name.getValue().matcher(whole.substring(0, hyphen)).matches() || name.getValue()
                        .matcher(whole.substring(hyphen + 1)).matches())) {
                    return name.getKey();
                }
            }
        }
        return "";
    }
}
