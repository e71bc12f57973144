/**
 * What is taken at the moment when something fails, and who takes it: a screenshot, a page source, the last lines of a
 * server's log. Adapters and test authors implement {@link dev.verbale.evidence.EvidenceSource}.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.evidence;

import org.jspecify.annotations.NullMarked;
