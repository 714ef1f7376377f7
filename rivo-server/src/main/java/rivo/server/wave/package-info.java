/**
 * Waves of assignments: how far each has come, and what a rule does about it: opens the next, or stops (section 6 of the delivery rules).
 */
@NullMarked
package rivo.server.wave;

import org.jspecify.annotations.NullMarked;
