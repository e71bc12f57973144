package dev.verbale.history.digest;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Tables of digests that were read before. One night's suite is the next one's: its tables are the same bytes, and are read once. Safe for
 * several threads.
 *
 * @since 0.2.0
 */
public final class TableCache {

    /** Of a few suites and branches; each is as long as all of a suite's names. */
    private static final int MAX_TABLES = 32;

    private final Map<Line, Map<String, List<String>>> tables = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Line, Map<String, List<String>>> eldest) {
            return size() > MAX_TABLES;
        }
    };

    private static final class Line {
        private final byte[] bytes;
        private final int length;
        private final int hash;

        private Line(byte[] bytes, int length) {
            this.bytes = bytes;
            this.length = length;
            int all = 1;
            for (int i = 0; i < length; i++) all = 31 * all + bytes[i];
            this.hash = all;
        }

        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Line line
                    && hash == line.hash
                    && Arrays.equals(bytes, 0, length, line.bytes, 0, line.length);
        }

        @Override
        public int hashCode() {
            return hash;
        }
    }

    /** One that knows none yet. */
    public TableCache() {}

    @Nullable
    Map<String, List<String>> get(byte[] bytes, int length) {
        var line = new Line(bytes, length);
        synchronized (tables) {
            return tables.get(line);
        }
    }

    void put(byte[] bytes, int length, Map<String, List<String>> read) {
        var line = new Line(Arrays.copyOf(bytes, length), length);
        synchronized (tables) {
            tables.put(line, read);
        }
    }
}
