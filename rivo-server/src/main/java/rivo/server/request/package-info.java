/**
 * What people have taken of what is offered to them, and given back. Each is a document of its own that takes effect at once: it turns the
 * offer into a requirement for that device or person.
 */
@NullMarked
package rivo.server.request;

import org.jspecify.annotations.NullMarked;
