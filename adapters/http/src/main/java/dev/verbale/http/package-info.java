/**
 * Exchanges of the JDK's {@link java.net.http.HttpClient}.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.http;

import org.jspecify.annotations.NullMarked;
