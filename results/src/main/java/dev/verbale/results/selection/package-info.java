/**
 * Some tests of a run, as runners take them: to run just those again.
 *
 * <p>No parameter or result is null unless marked; every type is an immutable value.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results.selection;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
