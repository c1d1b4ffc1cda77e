/** What programs can do over HTTP: questions with answers, apart from how they are carried. */
@NullMarked
package rombix.web.api;

import org.jspecify.annotations.NullMarked;
