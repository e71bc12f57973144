/** Brings the bytes of a run folder to a hub, as they grow or afterwards; restartable after any cut. */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.sending;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
