/**
 * The engine behind {@link dev.verbale.Verbale} and {@link dev.verbale.recorder.Recorder}. Not exported; nobody outside
 * this module may lean on it.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.internal;

import org.jspecify.annotations.NullMarked;
