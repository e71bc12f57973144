/**
 * What stands where callers meet the recorder: what they give is copied and shown without harm, and calls that could not be
 * made are counted. Knows nothing of recording. Not exported.
 *
 * <p>No parameter or result is null unless marked. Safe from any thread.
 */
@NullMarked
package dev.verbale.border;

import org.jspecify.annotations.NullMarked;
