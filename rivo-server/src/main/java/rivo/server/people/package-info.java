/**
 * Signing in, and who may. The directory checks the password; a group says who may.
 */
@NullMarked
package rivo.server.people;

import org.jspecify.annotations.NullMarked;
