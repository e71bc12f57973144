/** The server that a team's runs are sent to, and shown by while they go and afterwards. */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.hub;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
