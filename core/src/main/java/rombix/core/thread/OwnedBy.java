package rombix.core.thread;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Only one thread enters this class, and those within it; what others may call says so. */
@Documented
@Target(ElementType.TYPE)
@Retention(RetentionPolicy.CLASS)
public @interface OwnedBy {
    /** Threads that own something. */
    enum Owner {
        /** The conductor's, or the one that runs a deck of its own on twins. */
        CONDUCTOR,
        /** The interface's: the toolkit's, or that of a test without one. */
        INTERFACE,
        /** The loop of a link. */
        LINK
    }

    Owner value();
}
