/**
 * What a test's author types: {@link dev.verbale.Verbale} and the few types its calls take. Everything here is safe from
 * any thread, and nothing here throws into a test anything but the test's own exceptions.
 *
 * <p>No parameter or result is null unless marked. A null that comes all the same is recorded as the text {@code null}:
 * a test must not fail because its recording was sloppy.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
