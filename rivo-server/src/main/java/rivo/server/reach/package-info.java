/**
 * What each part of the organisation gets of one title: the map and what decides there. Reads only.
 */
@NullMarked
package rivo.server.reach;

import org.jspecify.annotations.NullMarked;
