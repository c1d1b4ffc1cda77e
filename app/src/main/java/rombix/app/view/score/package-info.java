/** The score of a chain: drawn against time, as a list, its forecast, and the search that adds to it. */
@NullMarked
package rombix.app.view.score;

import org.jspecify.annotations.NullMarked;
