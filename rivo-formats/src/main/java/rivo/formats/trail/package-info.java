/**
 * Trails as JSON. The door is {@link rivo.formats.trail.TrailJson}. Depends on the core and Jackson. Stateless.
 */
@NullMarked
package rivo.formats.trail;

import org.jspecify.annotations.NullMarked;
