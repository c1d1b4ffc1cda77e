package rombix.core.trust;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import rombix.core.value.Value;

/**
 * Takes secrets out of what is shown or kept. It knows every secret that this process has handed out, in every form in
 * which it may stand somewhere: plain, percent-encoded, as base64 within more, in hexadecimal digits, escaped for JSON.
 * Safe to use from any thread.
 */
public final class Redactor {
    /** Of this process: a secret that one link uses is hidden from the log of all. */
    public static final Redactor PROCESS = new Redactor();
    /** What is shorter is hidden only where it stands by itself: else half of all texts would be hidden. */
    private static final int SHORT = 6;
    /** Others than these are forgotten first; nobody uses so many. */
    private static final int MOST = 500;

    private final Map<String, String> names = new ConcurrentHashMap<>();
    /** With their names, the longest first. */
    private volatile List<Form> forms = List.of();

    private record Form(String text, String name) {
    }

    /** A secret is in use from now on. */
    public synchronized void remember(String name, String secret) {
        if (secret.isBlank() || name.equals(names.put(secret, name))) {
            return;
        }
        if (names.size() > MOST) {
            names.keySet().stream().filter(s -> !s.equals(secret)).findFirst().ifPresent(names::remove);
        }
        List<Form> all = new ArrayList<>();
        names.forEach((known, of) -> written(known).forEach(f -> all.add(new Form(f, of))));
        forms = all.stream().sorted(Comparator.comparingInt((Form f) -> f.text().length()).reversed()).toList();
    }

    /** A text without secrets: the name of each stands in its place. */
    public String clean(String text) {
        String clean = text;
        for (Form form : forms) {
            if (clean.contains(form.text())) {
                clean = hidden(clean, form);
            }
        }
        return clean;
    }

    private static String hidden(String text, Form form) {
        String instead = "(secret “" + form.name() + "”)";
        if (form.text().length() >= SHORT) {
            return text.replace(form.text(), instead);
        }
        StringBuilder out = new StringBuilder();
        int from = 0;
        for (int at = text.indexOf(form.text()); at >= 0; at = text.indexOf(form.text(), at + 1)) {
            int behind = at + form.text().length();
            if (at >= from && !within(text, at - 1) && !within(text, behind)) {
                out.append(text, from, at).append(instead);
                from = behind;
            }
        }
        return out.append(text, from, text.length()).toString();
    }

    private static boolean within(String text, int at) {
        return at >= 0 && at < text.length() && Character.isLetterOrDigit(text.charAt(at));
    }

    /** A value without secrets. */
    public Value clean(Value value) {
        if (forms.isEmpty()) {
            return value;
        }
        return switch (value) {
            case Value.Text t -> {
                String clean = clean(t.text());
                yield clean.equals(t.text()) ? value : Value.of(clean);
            }
            case Value.Choices c -> new Value.Choices(c.choices().stream().map(this::clean).toList());
            default -> value;
        };
    }

    private Value.Choice clean(Value.Choice choice) {
        Map<String, Value> fields = new java.util.LinkedHashMap<>();
        choice.fields().forEach((name, of) -> fields.put(name, clean(of)));
        return new Value.Choice(clean(choice.id()), clean(choice.name()), fields);
    }

    private static Set<String> written(String secret) {
        Set<String> all = new HashSet<>();
        all.add(secret);
        for (Charset letters : List.of(StandardCharsets.UTF_8, StandardCharsets.ISO_8859_1)) {
            byte[] bytes = secret.getBytes(letters);
            String percent = percent(bytes);
            all.add(percent);
            all.add(percent.replace("%20", "+"));
            all.add(new String(bytes, StandardCharsets.ISO_8859_1)); // As it looks where nobody knew how it was encoded.
            if (bytes.length >= SHORT) {
                String hex = HexFormat.of().formatHex(bytes);
                all.add(hex);
                all.add(hex.toUpperCase(Locale.ROOT));
                all.add(HexFormat.ofDelimiter(" ").formatHex(bytes));
                within(bytes, all);
            }
        }
        StringBuilder json = new StringBuilder();
        StringBuilder ascii = new StringBuilder();
        secret.chars().forEach(c -> {
            String escaped = c == '"' || c == '\\' ? "\\" + (char) c : String.valueOf((char) c);
            json.append(escaped);
            ascii.append(c < 128 ? escaped : "\\u%04x".formatted(c));
        });
        all.add(json.toString());
        all.add(ascii.toString());
        all.removeIf(String::isBlank);
        return all;
    }

    /** As in an address (RFC 3986, 2.3). */
    private static String percent(byte[] bytes) {
        StringBuilder out = new StringBuilder();
        for (byte b : bytes) {
            char c = (char) (b & 0xFF);
            boolean plain = c < 128 && (Character.isLetterOrDigit(c) || "-._~".indexOf(c) >= 0);
            out.append(plain ? String.valueOf(c) : "%%%02X".formatted((int) c));
        }
        return out.toString();
    }

    /** What base64 always has of it, wherever it stands within what is encoded. */
    private static void within(byte[] secret, Set<String> to) {
        for (int before = 0; before < 3; before++) {
            byte[] all = new byte[before + secret.length];
            System.arraycopy(secret, 0, all, before, secret.length);
            String encoded = Base64.getEncoder().withoutPadding().encodeToString(all);
            int begin = (before * 8 + 5) / 6;
            int end = all.length * 8 / 6;
            if (end - begin >= SHORT) {
                String part = encoded.substring(begin, end);
                to.add(part);
                to.add(part.replace('+', '-').replace('/', '_'));
            }
        }
    }
}
