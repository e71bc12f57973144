/**
 * Videos of what a browser or a screen shows: frames with their times, kept where a test fails and thrown away where it passes.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.video;

import org.jspecify.annotations.NullMarked;
