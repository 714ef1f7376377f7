/**
 * The estate: an immutable snapshot of everything that resolution looks at.
 * 
 * <p>The door is {@link rivo.core.estate.Estate}. Depends on nothing. Everything here is immutable and may be read
 * by any number of threads without locks.
 */
@NullMarked
package rivo.core.estate;

import org.jspecify.annotations.NullMarked;
