/**
 * Who is meant: sets of devices and of person units, and what each target, rule, fence and wave holds (section 3 of the
 * resolution rules).
 *
 * <p>The door is {@link rivo.core.audience.Audiences}. Depends on {@code estate} and {@code rule}. Immutable but for
 * caches that any number of threads may fill.
 */
@NullMarked
package rivo.core.audience;

import org.jspecify.annotations.NullMarked;
