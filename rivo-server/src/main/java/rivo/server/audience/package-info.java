/** Who can be reached: finding audiences, trying rules out, and the fences around OUs. The door is {@link rivo.server.audience.Fences}. */
@NullMarked
package rivo.server.audience;

import org.jspecify.annotations.NullMarked;
