package dev.verbale.sending;

import java.net.URI;
import java.util.List;

/**
 * What came of sending.
 *
 * @param page where people see the run
 * @param files how many the hub has whole
 * @param bytes how many were sent now
 * @param unsent files that the hub does not have as they are here, and why; none where it has all
 * @since 0.2.0
 */
public record SentRun(URI page, int files, long bytes, List<String> unsent) {

    public SentRun {
        unsent = List.copyOf(unsent);
    }

    /** Whether the hub has the run as it is here. */
    public boolean isWhole() {
        return unsent.isEmpty();
    }
}
