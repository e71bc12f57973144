/**
 * Sends a run to a hub while it goes. Found by itself when this artifact is on the test class path, and does nothing unless {@code
 * verbale.hub} says where the hub is.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.sender;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
