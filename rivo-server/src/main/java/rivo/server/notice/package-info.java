/**
 * What people at devices are told and asked: in which words, when not, what they have answered, and what of it counts. (Sections 4 and 5 of the
 * delivery rules.) What a device tells is composed in {@code fleet}, which gives it to the device with its work.
 */
@NullMarked
package rivo.server.notice;

import org.jspecify.annotations.NullMarked;
