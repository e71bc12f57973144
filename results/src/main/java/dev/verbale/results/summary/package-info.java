/**
 * A run in the words of a person.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.results.summary;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
