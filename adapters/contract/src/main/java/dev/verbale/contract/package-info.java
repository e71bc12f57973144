/**
 * Answers that are checked against a JSON Schema or an OpenAPI document.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.contract;

import org.jspecify.annotations.NullMarked;
