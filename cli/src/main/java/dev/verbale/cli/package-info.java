/**
 * The command {@code verbale}: reads arguments, calls {@code results} and {@code report}, prints what they say. Nothing is
 * worked out here.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.cli;

import org.jspecify.annotations.NullMarked;
