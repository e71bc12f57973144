/**
 * Exchanges of OkHttp.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.okhttp;

import org.jspecify.annotations.NullMarked;
