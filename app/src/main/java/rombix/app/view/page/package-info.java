/** Pages: the one in the middle, those that pop up or stand in the small window, their tabs and their trail. */
@NullMarked
package rombix.app.view.page;

import org.jspecify.annotations.NullMarked;
