/**
 * Live events: which parts of what people look at have changed, told by server-sent events that are numbered.
 */
@NullMarked
package rivo.server.live;

import org.jspecify.annotations.NullMarked;
