/**
 * Runs as other tools read them: JUnit-style XML, Markdown, CSV, JSON. {@code docs/export.md} describes each.
 *
 * <p>No parameter or result is null unless marked; the types have only static methods, which may be called from any thread.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.export;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
