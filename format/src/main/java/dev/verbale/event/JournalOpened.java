package dev.verbale.event;

import java.time.Instant;
import java.util.List;

/**
 * The first line of a journal.
 *
 * @param format the version of the format, see {@link dev.verbale.journal.JournalFormat#VERSION}
 * @param worker the name of the JVM that writes, unique in the run; also the file's name
 * @param wall the wall clock at {@code at} 0, to the microsecond
 * @param pid the process id of that JVM
 * @param verbale the version of the recorder
 * @param libraries how the names of classes begin that are not the suite's own, besides the JDK's and Verbale's: whoever reads
 *     a stack trace passes them over
 * @since 0.2.0
 */
public record JournalOpened(int format, String worker, Instant wall, long pid, String verbale, List<String> libraries)
        implements Event {

    public JournalOpened {
        libraries = List.copyOf(libraries);
    }

    @Override
    public long at() {
        return 0;
    }
}
