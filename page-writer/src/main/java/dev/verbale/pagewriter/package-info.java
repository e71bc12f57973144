/**
 * Writes the page of a run when the last JVM ends that records into it. Found by itself when this artifact is on the test class path.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.pagewriter;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
