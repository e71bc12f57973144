/**
 * The suite's own code, where it is at hand.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.source;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
