/** JSON as it goes to and from browsers and programs. */
@NullMarked
package rombix.web.json;

import org.jspecify.annotations.NullMarked;
