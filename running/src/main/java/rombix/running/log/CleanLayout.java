package rombix.running.log;

import ch.qos.logback.classic.PatternLayout;
import ch.qos.logback.classic.spi.ILoggingEvent;
import rombix.core.trust.Redactor;
import rombix.core.value.Visible;

/** Lines of Rombix's own log, without secrets and without control characters that a terminal would obey. */
public final class CleanLayout extends PatternLayout {
    @Override
    public String doLayout(ILoggingEvent event) {
        return Visible.text(Redactor.PROCESS.clean(super.doLayout(event)));
    }
}
