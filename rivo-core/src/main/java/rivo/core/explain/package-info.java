/**
 * Why: the trail behind an outcome, or behind its absence, from the same pairs and gates that decided it (section 10 of
 * the resolution rules).
 *
 * <p>The door is {@link rivo.core.explain.Trails}, which makes each {@link rivo.core.explain.Trail}. Depends on {@code resolve} and what is before it. Immutable, safe for
 * any thread.
 */
@NullMarked
package rivo.core.explain;

import org.jspecify.annotations.NullMarked;
