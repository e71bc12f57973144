/**
 * What an adapter is written against.
 *
 * <p>Three interfaces that the recorder implements, and nobody else: {@link dev.verbale.spi.TestLifecycle} for test frameworks,
 * {@link dev.verbale.spi.Capture} for clients, browsers, loggers and assertions, {@link dev.verbale.spi.Context} for what each of them
 * may ask. They may get methods in any version.
 *
 * <p>Three services that an adapter may provide: {@link dev.verbale.spi.Adapter} for its settings and the libraries that it knows,
 * {@link dev.verbale.spi.RunListener} to hear of the run itself, {@link dev.verbale.spi.ThrowableReader} for what its exceptions
 * tell. What comes to them in a later version has a default.
 *
 * <p>Values are classes with builders: one that knows more is built and read by adapters of any version.
 *
 * <p>No parameter or result is null unless marked. Everything here is safe from any thread and never throws.
 */
@API(status = API.Status.STABLE, since = "0.2.0")
@NullMarked
package dev.verbale.spi;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
