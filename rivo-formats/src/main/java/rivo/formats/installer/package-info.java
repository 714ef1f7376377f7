/**
 * Reads what is in installer files: the real format, whatever the name says, and what it tells of the software. Bounded in
 * time and memory whatever a file holds.
 *
 * <p>The door is {@link rivo.formats.installer.InstallerReader}. Nothing is ever unpacked onto the disk or run.
 */
@NullMarked
package rivo.formats.installer;

import org.jspecify.annotations.NullMarked;
