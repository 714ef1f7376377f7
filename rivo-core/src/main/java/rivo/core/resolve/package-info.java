/**
 * What comes out: the ladder, releases, seats, relations and what stays behind (sections 4 to 9 of the resolution rules).
 *
 * <p>The door is {@link rivo.core.resolve.Resolver}. Depends on {@code audience} and what is before it. Safe for any
 * thread.
 */
@NullMarked
package rivo.core.resolve;

import org.jspecify.annotations.NullMarked;
