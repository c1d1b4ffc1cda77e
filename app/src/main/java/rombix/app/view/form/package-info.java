/** Fields, choosers and questions that all rooms share. */
@NullMarked
package rombix.app.view.form;

import org.jspecify.annotations.NullMarked;
