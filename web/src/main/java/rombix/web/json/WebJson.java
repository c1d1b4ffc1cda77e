package rombix.web.json;

import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.json.JsonMapper;

/** JSON as it goes to and from browsers and programs; what comes in is kept short and shallow. */
public final class WebJson {
    /** The largest message that is taken, in bytes. */
    public static final int MOST_BYTES = 4096;
    public static final JsonMapper MAPPER = JsonMapper.builder(JsonFactory.builder().streamReadConstraints(
            StreamReadConstraints.builder().maxNestingDepth(8).maxStringLength(MOST_BYTES).maxNumberLength(40).build())
            .build()).build();

    private WebJson() {
    }

    /** A value as JSON, in one line. */
    public static String text(Object value) {
        return MAPPER.writeValueAsString(value);
    }
}
