/** Commands that hand boards over: what differs, and what of two is put together. */
@NullMarked
package rombix.app.cli.share;

import org.jspecify.annotations.NullMarked;
