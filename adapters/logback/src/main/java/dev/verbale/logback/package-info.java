/**
 * Hears Logback.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.logback;

import org.jspecify.annotations.NullMarked;
