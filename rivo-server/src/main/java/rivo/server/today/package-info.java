/** What needs somebody, gathered from the features that know it. Above all of them; it keeps nothing of its own. */
@NullMarked
package rivo.server.today;

import org.jspecify.annotations.NullMarked;
