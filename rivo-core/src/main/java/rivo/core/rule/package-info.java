/**
 * The rule language of collections, narrowings and variants: the filter grammar of RFC 7644, section 3.4.2.2, over the
 * facts of one device.
 *
 * <p>The door is {@link rivo.core.rule.Rule}; {@link rivo.core.rule.Subject} is what a rule is asked about. A rule is
 * compiled once into a tree of small immutable nodes, one kind a file, and evaluated many times by any number of
 * threads. Depends on {@code estate} for versions and problems.
 */
@NullMarked
package rivo.core.rule;

import org.jspecify.annotations.NullMarked;
