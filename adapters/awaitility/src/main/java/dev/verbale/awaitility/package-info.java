/**
 * Hears Awaitility's waits.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.awaitility;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
