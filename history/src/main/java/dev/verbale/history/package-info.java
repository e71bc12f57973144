/**
 * What happened over many runs: per test its outcomes, how flaky it is, whether it got slower; per reason when it came and went. Read
 * from a folder of digests, answered in memory.
 *
 * <p>No parameter or result is null unless marked; every type is an immutable value, but for the folder.
 */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.history;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
