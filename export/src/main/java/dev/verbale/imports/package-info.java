/**
 * Makes runs of what other tools wrote: JUnit-style XML and TAP 14. {@code docs/export.md} says what is taken from each.
 *
 * <p>No parameter or result is null unless marked; results are immutable values.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.imports;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
