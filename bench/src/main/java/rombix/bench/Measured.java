package rombix.bench;

import java.util.List;

/** A group of figures that are measured together. */
interface Measured {
    List<Figure> measure() throws Exception;
}
