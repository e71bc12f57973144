/**
 * Makes one run of several: of shards, machines, or later attempts.
 *
 * <p>No parameter or result is null unless marked; results are immutable values.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.join;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
