/**
 * What is different between two runs.
 *
 * <p>No parameter or result is null unless marked; every type is an immutable value.
 */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.history.compare;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
