/**
 * Steps out of annotated methods of page objects and clients, without touching the code that calls them.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.steps;

import org.jspecify.annotations.NullMarked;
