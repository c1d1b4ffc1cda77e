/** Messages over WebSocket. */
@NullMarked
package rombix.links.websocket;

import org.jspecify.annotations.NullMarked;
