/**
 * Steps, evidence and videos of browsers that Playwright drives.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.playwright;

import org.jspecify.annotations.NullMarked;
