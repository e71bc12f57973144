/**
 * What is attached, on its way into the run folder: named, typed, masked, stored, and recorded as pending where it comes later.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.attachment;

import org.jspecify.annotations.NullMarked;
