/**
 * Benchmarks of the core, by {@code ./rivo bench} and by JMH, and the load driver of {@code ./rivo load}. Run one of JMH's with
 * {@code java -cp … org.openjdk.jmh.Main NAME}.
 */
@NullMarked
package rivo.bench;

import org.jspecify.annotations.NullMarked;
