package rivo.server.log;

import ch.qos.logback.classic.pattern.ThrowableProxyConverter;
import ch.qos.logback.classic.spi.IThrowableProxy;
import java.util.stream.Collectors;

/** An exception below its log line. Each line is set in, so that none of them can be taken for a line of the log. */
public final class EscapedFault extends ThrowableProxyConverter {

    private static final String SET_IN = "    | ";

    @Override
    protected String throwableProxyToString(IThrowableProxy fault) {
        return super.throwableProxyToString(fault).lines().map(line -> SET_IN + EscapedText.of(line.replace('\t', ' ')))
                .collect(Collectors.joining(System.lineSeparator(), "", System.lineSeparator()));
    }
}
