/**
 * What adapters of browsers have in common: sessions over the tests that use a browser, snapshots of it, what it said and asked. For adapters, not for tests.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.browser;

import org.jspecify.annotations.NullMarked;
