/** Conversations that a card describes: greetings, polls, replies that are awaited. */
@NullMarked
package rombix.links.talk;

import org.jspecify.annotations.NullMarked;
