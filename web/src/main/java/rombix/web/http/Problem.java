package rombix.web.http;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.netty.handler.codec.http.HttpResponseStatus;

/**
 * An error as programs read it (RFC 9457, problem details).
 *
 * @param title what went wrong, the same for all of its kind
 * @param detail what it was this time, and what to do
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
record Problem(String title, int status, String detail) {
    static final String TYPE = "application/problem+json";

    static Problem of(HttpResponseStatus status, String title, String detail) {
        return new Problem(title, status.code(), detail);
    }
}
