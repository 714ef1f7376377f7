package rivo.server.log;

import ch.qos.logback.classic.pattern.MessageConverter;
import ch.qos.logback.classic.spi.ILoggingEvent;

/** The message of a log line, on one line whatever it holds. */
public final class EscapedMessage extends MessageConverter {

    @Override
    public String convert(ILoggingEvent event) {
        return EscapedText.of(String.valueOf(event.getFormattedMessage()));
    }
}
