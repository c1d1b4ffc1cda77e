/** What all views work with: the desk, popovers, icons, keys. */
@NullMarked
package rombix.app.view.common;

import org.jspecify.annotations.NullMarked;
