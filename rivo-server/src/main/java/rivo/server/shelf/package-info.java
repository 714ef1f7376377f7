/**
 * What people see: what is offered to them on a computer of theirs, what they have taken, what is coming, and what is there. Above all other
 * features.
 */
@NullMarked
package rivo.server.shelf;

import org.jspecify.annotations.NullMarked;
