/** Benchmarks of the core, by JMH. Run one with {@code java -cp … org.openjdk.jmh.Main NAME}. */
@NullMarked
package rivo.bench;

import org.jspecify.annotations.NullMarked;
