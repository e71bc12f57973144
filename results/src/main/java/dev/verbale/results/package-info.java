/**
 * A run as somebody reads it afterwards: tests with all that belongs to them, counts, causes, the plain sentence. Read
 * with {@link dev.verbale.results.RunReader}; nothing here draws, prints or changes a folder.
 *
 * <p>No parameter or result is null unless marked; every type but the reader is an immutable value.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.results;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
