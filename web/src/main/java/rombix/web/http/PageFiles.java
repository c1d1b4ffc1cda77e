package rombix.web.http;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import rombix.running.face.IconFont;

/** The files that the page is made of. No other file is served. Thread-safe. */
final class PageFiles {
    /** @param kept whether browsers may keep it for a year: what is behind its name never changes */
    record PageFile(byte[] bytes, String type, boolean kept) {
    }

    private static final String HERE = "/rombix/web/page/";
    private static final String FONTS = "/rombix/running/face/fonts/";
    private static final String[][] FILES = {
            {"/", "index.html", "text/html; charset=utf-8"},
            {"/page.css", "page.css", "text/css; charset=utf-8"},
            {"/start.js", "start.js", "text/javascript; charset=utf-8"},
            {"/connection.js", "connection.js", "text/javascript; charset=utf-8"},
            {"/tile.js", "tile.js", "text/javascript; charset=utf-8"},
            {"/hand.js", "hand.js", "text/javascript; charset=utf-8"},
            {"/scene.js", "scene.js", "text/javascript; charset=utf-8"},
            {"/manifest.webmanifest", "manifest.webmanifest", "application/manifest+json"},
            {"/icon.svg", "icon.svg", "image/svg+xml"},
            {"/icon-192.png", "icon-192.png", "image/png"},
            {"/icon-512.png", "icon-512.png", "image/png"},
            {"/fonts/archivo-narrow-400.woff", FONTS + "archivo-narrow-latin-400-normal.woff", "font/woff"},
            {"/fonts/archivo-narrow-600.woff", FONTS + "archivo-narrow-latin-600-normal.woff", "font/woff"},
            {"/fonts/archivo-narrow-700.woff", FONTS + "archivo-narrow-latin-700-normal.woff", "font/woff"},
            {"/fonts/icons.ttf", IconFont.FILE, "font/ttf"}};

    private final Map<String, PageFile> byPath = new LinkedHashMap<>();

    PageFiles() {
        for (String[] file : FILES) {
            String resource = file[1].startsWith("/") ? file[1] : HERE + file[1];
            byPath.put(file[0], new PageFile(read(resource), file[2], file[0].startsWith("/fonts/")));
        }
    }

    private static byte[] read(String resource) {
        try (InputStream in = PageFiles.class.getResourceAsStream(resource)) {
            if (in == null) {
                throw new IllegalStateException(resource + " is missing");
            }
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    Optional<PageFile> at(String path) {
        return Optional.ofNullable(byPath.get(path));
    }
}
