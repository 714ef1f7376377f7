/**
 * One search over devices, OUs and titles. Reads the snapshot only.
 */
@NullMarked
package rivo.server.search;

import org.jspecify.annotations.NullMarked;
