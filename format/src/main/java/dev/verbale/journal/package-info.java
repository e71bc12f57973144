/**
 * Events as JSON Lines, and the append-only file that holds them.
 *
 * <p>A journal is written by one JVM: {@link dev.verbale.journal.JournalWriter}. It is read by any:
 * {@link dev.verbale.journal.JournalReader}. What a run is made of is for the readers above to say.
 *
 * <p>No parameter or result is null unless marked.
 */
@API(status = API.Status.EXPERIMENTAL, since = "0.2.0")
@NullMarked
package dev.verbale.journal;

import org.apiguardian.api.API;
import org.jspecify.annotations.NullMarked;
