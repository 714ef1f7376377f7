/**
 * Who is reached: sets of devices, and what an assignment's targets hold once the fences have spoken.
 * 
 * <p>The door is {@link rivo.core.audience.Reach}. Depends on {@code estate}. Immutable, safe for any thread.
 */
@NullMarked
package rivo.core.audience;

import org.jspecify.annotations.NullMarked;
