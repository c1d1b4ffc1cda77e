package rombix.bench.measure;

import java.util.List;

/** A group of figures that are measured together. */
public interface Measured {
    List<Figure> measure() throws Exception;
}
