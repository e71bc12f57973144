/**
 * Hears AssertJ's soft assertions.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.assertj;

import org.jspecify.annotations.NullMarked;
