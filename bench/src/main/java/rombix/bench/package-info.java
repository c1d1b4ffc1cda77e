/** Measures Rombix against bare baselines, both in one run. */
@NullMarked
package rombix.bench;

import org.jspecify.annotations.NullMarked;
