/**
 * Whom audiences hold and why, what they receive, and the pages of people. Everything is answered with the draft of whoever asks. The doors are
 * HTTP only.
 */
@NullMarked
package rivo.server.membership;

import org.jspecify.annotations.NullMarked;
