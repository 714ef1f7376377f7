/**
 * Assignments as documents: everything of the estate file's assignment, and how politely and when it is carried out.
 *
 * <p>The door is {@link rivo.server.assignment.AssignmentDocument}.
 */
@NullMarked
package rivo.server.assignment;

import org.jspecify.annotations.NullMarked;
