/**
 * Hears {@code java.util.logging}.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.jul;

import org.jspecify.annotations.NullMarked;
