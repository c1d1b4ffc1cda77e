/** Files that boards are kept in and use: the board itself, pictures, sounds. */
@NullMarked
package rombix.app.edit.file;

import org.jspecify.annotations.NullMarked;
