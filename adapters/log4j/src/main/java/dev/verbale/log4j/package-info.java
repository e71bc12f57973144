/**
 * Hears Log4j 2.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.log4j;

import org.jspecify.annotations.NullMarked;
