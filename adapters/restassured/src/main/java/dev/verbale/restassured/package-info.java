/**
 * Exchanges of REST Assured.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.restassured;

import org.jspecify.annotations.NullMarked;
