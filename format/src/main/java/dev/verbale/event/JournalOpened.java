package dev.verbale.event;

import java.time.Instant;
import java.util.List;

/**
 * The first line of a journal. Made by {@link #of}; a component more changes who fills it and who shows it, and nobody else.
 *
 * @param format the version of the format, see {@link dev.verbale.journal.JournalFormat#VERSION}
 * @param worker the name of the JVM that writes, unique in the run; also the file's name
 * @param wall the wall clock at {@code at} 0, to the microsecond
 * @param module which module of the build that JVM tests, as the path from the build's folder, such as {@code garden/beds}; empty
 *     where the build has one only, or nobody knows
 * @param pid the process id of that JVM
 * @param verbale the version of the recorder
 * @param libraries how the names of classes begin that are not the suite's own, besides the JDK's and Verbale's: whoever reads
 *     a stack trace passes them over
 * @since 0.2.0
 */
public record JournalOpened(
        int format, String worker, Instant wall, String module, long pid, String verbale, List<String> libraries)
        implements Event {

    public JournalOpened {
        libraries = List.copyOf(libraries);
    }

    /** That of {@code worker}, of which nothing else is said as yet. */
    public static Builder of(int format, String worker, Instant wall) {
        return new Builder(format, worker, wall);
    }

    @Override
    public long at() {
        return 0;
    }

    /**
     * What may be said of a JVM beside its name. The components say what each is; not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final int format;
        private final String worker;
        private final Instant wall;
        private String module = "";
        private long pid;
        private String verbale = "";
        private List<String> libraries = List.of();

        private Builder(int format, String worker, Instant wall) {
            this.format = format;
            this.worker = worker;
            this.wall = wall;
        }

        public Builder module(String its) {
            module = its;
            return this;
        }

        public Builder pid(long its) {
            pid = its;
            return this;
        }

        public Builder verbale(String version) {
            verbale = version;
            return this;
        }

        public Builder libraries(List<String> beginnings) {
            libraries = beginnings;
            return this;
        }

        public JournalOpened build() {
            return new JournalOpened(format, worker, wall, module, pid, verbale, libraries);
        }
    }
}
