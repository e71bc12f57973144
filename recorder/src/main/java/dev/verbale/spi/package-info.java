/**
 * What an adapter is written against. {@link dev.verbale.spi.TestLifecycle} for test frameworks, {@link dev.verbale.spi.Capture}
 * for clients, browsers, loggers and assertions, {@link dev.verbale.spi.Context} for what each may ask; three services that an
 * adapter may provide: {@link dev.verbale.spi.Adapter} for its settings and the libraries that it knows,
 * {@link dev.verbale.spi.RunListener} to hear of the run itself, and
 * {@link dev.verbale.spi.ThrowableReader} for what its exceptions tell. The recorder implements the first three, and nobody
 * else does.
 *
 * <p>No parameter or result is null unless marked. Everything here is safe from any thread and never throws.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.spi;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
