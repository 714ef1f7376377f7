/**
 * What one device has to do: its outcomes as an ordered list of actions.
 *
 * <p>The door is {@link rivo.core.plan.Plan}. Depends on {@code resolve} and what is before it. Pure functions, safe for
 * any thread.
 */
@NullMarked
package rivo.core.plan;

import org.jspecify.annotations.NullMarked;
