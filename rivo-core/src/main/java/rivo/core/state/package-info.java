/**
 * In which state each unit of a title is: one of a closed set (section 7 of the delivery rules), from what it shall have, what is there, and what
 * its device is doing about it. The same for every screen, list and count.
 *
 * <p>The door is {@link rivo.core.state.UnitState#of}. Depends on {@code estate} and {@code resolve}. Pure functions, safe for any thread.
 */
@NullMarked
package rivo.core.state;

import org.jspecify.annotations.NullMarked;
