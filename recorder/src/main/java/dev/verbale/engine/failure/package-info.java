/**
 * What throwables tell: outcomes, failures, stack traces. Whatever they do when they are asked.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread. Not exported.
 */
@NullMarked
package dev.verbale.engine.failure;

import org.jspecify.annotations.NullMarked;
