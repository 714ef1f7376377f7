/**
 * What is chosen of a title for a person.
 *
 * <p>The door is {@link rivo.server.catalogue.choice.FixedChoices}, a part of the snapshot.
 */
@NullMarked
package rivo.server.catalogue.choice;

import org.jspecify.annotations.NullMarked;
