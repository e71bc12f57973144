package dev.verbale.event;

import java.time.Instant;

/**
 * The first line of a journal.
 *
 * @param format the version of the format, see {@link dev.verbale.journal.JournalFormat#VERSION}
 * @param worker the name of the JVM that writes, unique in the run; also the file's name
 * @param wall the wall clock at {@code at} 0, to the microsecond
 * @param pid the process id of that JVM
 * @param verbale the version of the recorder
 */
public record JournalOpened(int format, String worker, Instant wall, long pid, String verbale) implements Event {
    @Override
    public long at() {
        return 0;
    }
}
