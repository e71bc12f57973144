/**
 * Deletes runs that nobody needs any more.
 *
 * <p>No parameter or result is null unless marked; results are immutable values.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.sweep;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
