package rombix.web.api;

import java.util.Map;
import rombix.web.access.Access;
import tools.jackson.databind.JsonNode;

/**
 * A call of a program.
 *
 * @param path behind {@code /api/v1}, such as {@code /buttons/gate/press}
 * @param query the parameters, decoded; of several with one name the last
 * @param body a JSON object; an empty one where none was sent
 */
public record ApiCall(String method, String path, Map<String, String> query, JsonNode body, Access access) {
}
