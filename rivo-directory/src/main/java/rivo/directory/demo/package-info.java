/**
 * The demo organisation, and an embedded directory that serves it on a loopback port.
 *
 * <p>The doors are {@link rivo.directory.demo.DemoOrganisation} (who there is, from one seed) and
 * {@link rivo.directory.demo.EmbeddedDirectory} (an LDAP server filled from LDIF, RFC 2849).
 */
@NullMarked
package rivo.directory.demo;

import org.jspecify.annotations.NullMarked;
