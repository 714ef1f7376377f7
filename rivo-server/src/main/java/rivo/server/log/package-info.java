/**
 * How log lines are written: what comes from outside cannot begin a line of its own, and refusals are counted instead of
 * repeated. The door is {@link rivo.server.log.RefusalLog}; the converters are named in {@code logback-spring.xml}. Safe for any
 * number of threads.
 */
@NullMarked
package rivo.server.log;

import org.jspecify.annotations.NullMarked;
