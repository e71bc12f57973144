/**
 * A run in a few bytes a test: what a history remembers. {@code docs/history.md} describes the files.
 *
 * <p>No parameter or result is null unless marked; every type is an immutable value, or has only static methods.
 */
@NullMarked
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
package dev.verbale.history.digest;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
