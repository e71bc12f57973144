/**
 * Exchanges of Apache HttpClient 5.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.httpclient5;

import org.jspecify.annotations.NullMarked;
