/**
 * One search over devices, OUs and titles. Reads the working estate only.
 */
@NullMarked
package rivo.server.search;

import org.jspecify.annotations.NullMarked;
