/**
 * Licence texts that somebody accepts for the organisation, and the seats that are taken.
 *
 * <p>The door is {@link rivo.server.catalogue.licence.Licences}; acceptances are a part of the snapshot.
 */
@NullMarked
package rivo.server.catalogue.licence;

import org.jspecify.annotations.NullMarked;
