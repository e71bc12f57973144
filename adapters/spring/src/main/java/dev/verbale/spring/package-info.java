/**
 * Exchanges of Spring's {@code RestClient} and {@code RestTemplate}.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.spring;

import org.jspecify.annotations.NullMarked;
