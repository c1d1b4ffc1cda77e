/** Finding what gear can do from a few typed words. */
@NullMarked
package rombix.core.find;

import org.jspecify.annotations.NullMarked;
