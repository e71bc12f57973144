/**
 * What adapters of browsers have in common: sessions over the tests that use a browser, snapshots of it, what it said and asked. For adapters, not for tests.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.browser;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
