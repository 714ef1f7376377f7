/**
 * The ladder and the release: what each device receives of each title (sections 3 to 5 of the resolution rules).
 * 
 * <p>The door is {@link rivo.core.resolve.Resolver}. Depends on {@code estate} and {@code audience}. Pure functions of
 * one estate, safe for any thread.
 */
@NullMarked
package rivo.core.resolve;

import org.jspecify.annotations.NullMarked;
