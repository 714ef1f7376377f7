/**
 * One search over devices, people, audiences, kits and titles. Reads the snapshot only.
 */
@NullMarked
package rivo.server.search;

import org.jspecify.annotations.NullMarked;
