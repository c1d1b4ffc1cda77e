package rombix.app.edit.file;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.parser.LoaderContext;
import com.github.weisj.jsvg.parser.SVGLoader;
import com.github.weisj.jsvg.parser.resources.ResourcePolicy;
import com.github.weisj.jsvg.renderer.NullPlatformSupport;
import com.github.weisj.jsvg.renderer.output.Output;
import com.github.weisj.jsvg.view.FloatSize;
import com.github.weisj.jsvg.view.ViewBox;
import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.StringReader;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import java.util.logging.Level;
import java.util.logging.Logger;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jspecify.annotations.Nullable;

/**
 * Draws SVG that anybody may have written: nothing is loaded from outside, there are no entities, which could name files
 * or grow without end, and the drawing ends where it takes too long.
 */
final class SvgPicture {
    /** How long a picture may take to be drawn. */
    private static final long BUDGET_NANOS = TimeUnit.SECONDS.toNanos(2);
    /** Dashes that come more often than this, in pixels, look like a line, and take for ever. */
    private static final double FINEST_DASH = 0.25;
    /** A line with more dashes than this leaves the picture by far, and takes for ever. */
    private static final double MOST_DASHES = 100_000;

    /** What is in no path: a sign that is none of its own, or anything but a command behind the one that closes it. */
    private static final Pattern NO_PATH = Pattern.compile(
            "[^MmLlHhVvCcSsQqTtAaZz0-9eE+\\-.,\\s]|[Zz][\\s,]*+[^MmLlHhVvCcSsQqTtAaZz\\s,]");

    /** What it has to say of a damaged picture is said once, by the error. */
    private static final Logger DRAWING = Logger.getLogger("com.github.weisj.jsvg");

    static {
        DRAWING.setLevel(Level.OFF);
    }

    private SvgPicture() {
    }

    static boolean is(byte[] bytes) {
        return new String(bytes, 0, Math.min(bytes.length, 4096), StandardCharsets.UTF_8).contains("<svg");
    }

    /** @return the picture, its longest side so many pixels; null where it is none */
    static @Nullable BufferedImage draw(byte[] bytes, int side) {
        String text = new String(bytes, StandardCharsets.UTF_8);
        if (text.contains("<!ENTITY") || !pathsEnd(text)) {
            return null;
        }
        LoaderContext context = LoaderContext.builder().externalResourcePolicy(ResourcePolicy.DENY_EXTERNAL).build();
        // Without bytes that are no letters: its reader says those on the console.
        SVGDocument svg = new SVGLoader().load(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)), null,
                context);
        if (svg == null) {
            return null;
        }
        FloatSize size = svg.size();
        double scale = side / Math.max(1.0, Math.max(size.width, size.height));
        int width = (int) Math.clamp(Math.round(size.width * scale), 1, side);
        int height = (int) Math.clamp(Math.round(size.height * scale), 1, side);
        long end = System.nanoTime() + BUDGET_NANOS;
        return Painting.painted(width, height, g -> svg.renderWithPlatform(NullPlatformSupport.INSTANCE, bounded(
                output(g), end, new BasicStroke()), new ViewBox(width, height)));
    }

    /** Whether its paths are such that the reader of the library comes to their end. */
    private static boolean pathsEnd(String text) {
        XMLInputFactory factory = XMLInputFactory.newFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try {
            XMLStreamReader in = factory.createXMLStreamReader(new StringReader(text));
            try {
                while (in.hasNext()) {
                    if (in.next() == XMLStreamConstants.START_ELEMENT) {
                        String path = in.getAttributeValue(null, "d");
                        if (path != null && NO_PATH.matcher(path).find()) {
                            return false;
                        }
                    }
                }
            } finally {
                in.close();
            }
            return true;
        } catch (XMLStreamException | RuntimeException e) {
            return false; // The library takes more than is XML; nobody needs that.
        }
    }

    private static Output output(Graphics2D g) {
        return Output.createForGraphics(g);
    }

    /**
     * The same output, which ends what draws on it when its time is up.
     *
     * @param now the stroke that is set
     * @throws IllegalStateException from any of its methods, then
     */
    private static Output bounded(Output to, long endNanos, BasicStroke now) {
        BasicStroke[] set = {now};
        return (Output) Proxy.newProxyInstance(Output.class.getClassLoader(), new Class<?>[]{Output.class}, (_, method,
                args) -> {
            if (System.nanoTime() - endNanos > 0) {
                throw new IllegalStateException("drawing it takes too long");
            }
            if (args != null && args.length == 1 && args[0] instanceof BasicStroke stroke) {
                set[0] = stroke;
                args[0] = drawable(stroke, to.transform(), 0);
            } else if (args != null && args.length == 1 && args[0] instanceof Shape shape) {
                Rectangle2D around = shape.getBounds2D();
                to.setStroke(drawable(set[0], to.transform(), around.getWidth() + around.getHeight()));
            }
            try {
                Object result = method.invoke(to, args);
                return result instanceof Output child ? bounded(child, endNanos, set[0]) : result;
            } catch (InvocationTargetException e) {
                throw e.getCause();
            }
        });
    }

    /** The stroke without its dashes where they are too fine to be seen, or too many for a line of such a length. */
    private static BasicStroke drawable(BasicStroke stroke, AffineTransform transform, double length) {
        float[] dashes = stroke.getDashArray();
        double sum = 0;
        for (int i = 0; dashes != null && i < dashes.length; i++) {
            sum += dashes[i];
        }
        double scale = Math.sqrt(Math.abs(transform.getDeterminant()));
        return dashes == null || sum * scale >= FINEST_DASH && length / sum <= MOST_DASHES
                ? stroke
                : new BasicStroke(stroke.getLineWidth(), stroke.getEndCap(), stroke.getLineJoin(), stroke
                        .getMiterLimit());
    }
}
