/**
 * What adapters of browsers have in common: a look at a browser, and what it said and asked. For adapters, not for tests.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.browser;

import org.jspecify.annotations.NullMarked;
