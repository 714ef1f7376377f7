/**
 * What all HTTP faces share: who may, which headers, how a problem is said, and the front end's files.
 */
@NullMarked
package rivo.server.web;

import org.jspecify.annotations.NullMarked;
