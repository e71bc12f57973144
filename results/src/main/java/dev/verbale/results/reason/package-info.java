/**
 * What failures have in common. Which failures share a reason is decided by rules alone, from what a run holds: the same run
 * read twice, here or there, has the same reasons.
 *
 * <p>No parameter or result is null unless marked; every type may be shared between threads.
 */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.results.reason;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
