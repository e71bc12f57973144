/**
 * What CI systems say of their jobs in the environment, for whoever records a run and whoever sends it.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.ci;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
