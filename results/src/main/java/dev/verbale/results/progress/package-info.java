/**
 * How far a run is that is still going.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.progress;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
